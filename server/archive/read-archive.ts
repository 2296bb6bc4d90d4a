import { createHash } from 'node:crypto'
import { createReadStream, createWriteStream, mkdirSync } from 'node:fs'
import { stat, statfs } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { Entry, ZipFile } from 'yauzl'
import { readJson } from '../../shared/schemas/read-json'
import { DomainProblem } from '../problems'
import {
  archiveFormat,
  archiveVersion,
  databaseName,
  isMemberName,
  manifestName,
  manifestSchema,
  mostManifestBytes,
  type Manifest,
  type Member,
} from './layout'
import { commentBytes, sumOfComment } from './trailing-sum'

const refused = (why: string) => new DomainProblem('refused', `${why} Nothing was restored.`, 'file')
const noArchive = () => refused('This is not an archive of Jolly Gram.')
const changed = () => refused('This archive is not as it was written: some of it is damaged or was changed.')

/**
 * Checks an archive whole and lays its members into a folder of their own: every byte against the sum at its end, every
 * member against what its manifest says of it. What is not said there, climbs out of the folder or is larger than said is
 * refused. Throws with a sentence; what was laid out by then is the caller's to clear away.
 */
export async function layOut(file: string, stage: string): Promise<Manifest> {
  const zip = await opened(file)
  try {
    await requireSum(file, zip)
    const entries = await entriesOf(zip)
    const manifest = await manifestOf(zip, entries)
    const members = requireMembers(manifest, entries)
    await requireRoom(stage, members)
    for (const member of members) await layOne(zip, entries.get(member.name)!, member, join(stage, member.name))
    return manifest
  } finally {
    zip.close()
  }
}

async function opened(file: string): Promise<ZipFile> {
  const { openPromise } = await import('yauzl')
  try {
    return await openPromise(file, {
      lazyEntries: true,
      autoClose: false,
      strictFileNames: true,
      validateEntrySizes: true,
    })
  } catch {
    throw noArchive()
  }
}

async function requireSum(file: string, zip: ZipFile): Promise<void> {
  const said = sumOfComment(zip.comment)
  if (said === null) throw noArchive()
  const { size } = await stat(file)
  const hash = createHash('sha256')
  for await (const chunk of createReadStream(file, { end: size - commentBytes - 1 })) hash.update(chunk as Buffer)
  if (hash.digest('hex') !== said) throw changed()
}

async function entriesOf(zip: ZipFile): Promise<Map<string, Entry>> {
  const entries = new Map<string, Entry>()
  await new Promise<void>((done, fail) => {
    zip.on('entry', (entry: Entry) => {
      if (entries.has(entry.fileName)) fail(refused(`“${shown(entry.fileName)}” is in this archive twice.`))
      entries.set(entry.fileName, entry)
      zip.readEntry()
    })
    zip.once('end', done)
    zip.once('error', () => fail(changed()))
    zip.readEntry()
  })
  return entries
}
const shown = (name: string) => name.slice(0, 80)

async function manifestOf(zip: ZipFile, entries: ReadonlyMap<string, Entry>): Promise<Manifest> {
  const entry = entries.get(manifestName)
  if (!entry || entry.uncompressedSize > mostManifestBytes) throw noArchive()
  const chunks: Buffer[] = []
  for await (const chunk of await zip.openReadStreamPromise(entry)) chunks.push(chunk as Buffer)
  const read = readJson(Buffer.concat(chunks).toString('utf8'))
  if ('problem' in read) throw noArchive()
  const head = read.data as { format?: unknown; version?: unknown } | null
  if (head?.format !== archiveFormat) throw noArchive()
  if (typeof head.version === 'number' && head.version > archiveVersion)
    throw refused(
      `This archive has version ${head.version}; this application reads up to version ${archiveVersion}. Update the application.`,
    )
  const parsed = manifestSchema.safeParse(read.data)
  if (!parsed.success) throw noArchive()
  return parsed.data
}

/** The members of an archive, each said by its manifest and there, and nothing else there. */
function requireMembers({ members }: Manifest, entries: ReadonlyMap<string, Entry>): readonly Member[] {
  const said = new Map(members.map(member => [member.name, member]))
  for (const [name, entry] of entries) {
    if (name === manifestName) continue
    const member = said.get(name)
    if (!member || !isMemberName(name)) throw refused(`“${shown(name)}” in this archive is none of its own files.`)
    if (entry.uncompressedSize !== member.size) throw refused(`“${shown(name)}” is not as large as the archive says.`)
    if (entry.isEncrypted()) throw noArchive()
  }
  const missing = members.find(({ name }) => !entries.has(name))
  if (missing) throw refused(`“${missing.name}” is missing in this archive.`)
  if (!said.has(databaseName)) throw refused('There is no database in this archive.')
  return members
}

async function requireRoom(stage: string, members: readonly Member[]): Promise<void> {
  const wanted = members.reduce((sum, { size }) => sum + size, 0)
  const { bavail, bsize } = await statfs(dirname(stage))
  // The database grows a little when it is brought up to date.
  if (bavail * bsize < wanted * 1.1 + 50_000_000)
    throw refused(`${Math.ceil(wanted / 1e6)} MB are needed and ${Math.floor((bavail * bsize) / 1e6)} MB are free.`)
}

async function layOne(zip: ZipFile, entry: Entry, member: Member, path: string): Promise<void> {
  mkdirSync(dirname(path), { recursive: true, mode: 0o700 })
  const hash = createHash('sha256')
  let size = 0
  const counted = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      size += chunk.length
      hash.update(chunk)
      done(size > member.size ? new Error('larger than said') : null, chunk)
    },
  })
  try {
    await pipeline(
      await zip.openReadStreamPromise(entry),
      counted,
      createWriteStream(path, { mode: 0o600, flush: true }),
    )
  } catch {
    throw refused(`“${shown(member.name)}” cannot be read out of this archive, or is larger than it says.`)
  }
  if (size !== member.size || hash.digest('hex') !== member.sha256) throw changed()
}
