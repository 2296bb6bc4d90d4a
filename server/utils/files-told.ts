import type { UnnamedFile } from '../archive'

/** Files of a data folder by how many there are of which kind, and their size. */
export const filesTold = (files: readonly UnnamedFile[]) => {
  const below = (folder: string) => files.filter(({ name }) => name.startsWith(`${folder}/`)).length
  return {
    bytes: files.reduce((sum, { bytes }) => sum + bytes, 0),
    pictures: below('pictures') + below('photos'),
    logs: below('logs'),
  }
}
