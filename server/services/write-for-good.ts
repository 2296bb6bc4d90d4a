import { open, rename } from 'node:fs/promises'
import { join } from 'node:path'

/** Writes a file so that it is there, whole, after a power cut: itself and its name in the folder. */
export async function writeForGood(folder: string, name: string, bytes: Buffer): Promise<void> {
  const path = join(folder, name)
  const file = await open(`${path}.part`, 'w', 0o600)
  try {
    await file.writeFile(bytes)
    await file.sync()
  } finally {
    await file.close()
  }
  await rename(`${path}.part`, path)
  const directory = await open(folder, 'r')
  try {
    await directory.sync()
  } finally {
    await directory.close()
  }
}
