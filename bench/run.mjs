/**
 * Runs the benches one after another, or the one named: core, loadouts, shave, frames, drawer, http, start, page,
 * scroll, drag, stream, telemetry, log-page, flights, compare, history, archive. Each prints ratios within its own run.
 */
import { spawnSync } from 'node:child_process'
import { rmSync } from 'node:fs'
import { join } from 'node:path'
import { build } from 'esbuild'

const wanted = process.argv.slice(2)
for (const name of [
  'core',
  'loadouts',
  'shave',
  'frames',
  'drawer',
  'http',
  'start',
  'page',
  'scroll',
  'drag',
  'stream',
  'telemetry',
  'log-page',
  'flights',
  'compare',
  'history',
  'archive',
].filter(n => wanted.length === 0 || wanted.includes(n))) {
  console.log(`\n— ${name}`)
  // Bundled as the application is: the cost of a module loader is not what is measured.
  const outfile = join(import.meta.dirname, `${name}.bundle.mjs`)
  await build({
    entryPoints: [join(import.meta.dirname, `${name}.ts`)],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
    logLevel: 'error',
  })
  const { status } = spawnSync(process.execPath, [outfile], { stdio: 'inherit' })
  rmSync(outfile)
  if (status !== 0) process.exit(status ?? 1)
}
