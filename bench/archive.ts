/**
 * Two gigabytes of photos through an archive and back: the most memory this process ever had, beside what it had before,
 * and the time against a plain copy of the same files with their sums.
 */
import { createHash, randomBytes } from 'node:crypto'
import {
  createReadStream,
  createWriteStream,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { checkArchive } from '../server/archive'
import { makeApplication } from '../server/services/application'

const photos = 400
const bytes = 5_000_000
const folder = mkdtempSync(join(tmpdir(), 'bench-'))
const migrationFolder = join(process.cwd(), 'server/db/migrations')
const migrations = readdirSync(migrationFolder).map(name => ({
  name,
  sql: readFileSync(join(migrationFolder, name), 'utf8'),
}))
const mostMb = () => Math.round(process.resourceUsage().maxRSS / 1024)

const app = makeApplication(join(folder, 'jolly-gram.sqlite'), migrations)
await app.files.importBuild(readFileSync('demo/builds/nougat.build.json', 'utf8'))
mkdirSync(join(folder, 'photos/nougat'), { recursive: true })
const noise = randomBytes(bytes)
for (let i = 0; i < photos; i++) {
  noise.writeUInt32LE(i, i)
  writeFileSync(join(folder, `photos/nougat/p${i}.jpg`), noise)
}
console.log(`${(photos * bytes) / 1e9} GB of photos; memory before: ${mostMb()} MB`)

const plain = performance.now()
mkdirSync(join(folder, 'plain'))
for (let i = 0; i < photos; i++) {
  const hash = createHash('sha256')
  await pipeline(
    createReadStream(join(folder, `photos/nougat/p${i}.jpg`)),
    new Transform({
      transform(chunk: Buffer, _encoding, done) {
        hash.update(chunk)
        done(null, chunk)
      },
    }),
    createWriteStream(join(folder, `plain/p${i}.jpg`)),
  )
  hash.digest('hex')
}
const plainMs = performance.now() - plain
rmSync(join(folder, 'plain'), { recursive: true })

const writing = performance.now()
const file = join(folder, 'all.zip')
await app.archive.write(createWriteStream(file))
const writeMs = performance.now() - writing
console.log(
  `archive written: ${(writeMs / plainMs).toFixed(2)} of a plain copy with sums (${(plainMs / 1000).toFixed(1)} s)`,
)
console.log(`most memory (under 150 MB): ${mostMb()} MB`)

const checking = performance.now()
const { members } = await checkArchive(folder, file, migrations)
console.log(`${members} files checked and laid ready: ${((performance.now() - checking) / plainMs).toFixed(2)} of it`)
console.log(`most memory (under 150 MB): ${mostMb()} MB`)
app.close()
rmSync(folder, { recursive: true, force: true })
