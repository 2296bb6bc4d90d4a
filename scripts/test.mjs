/** Everything a change must pass, in the order in which failures are cheapest. Ends with the counts of the runners. */
import { existsSync } from 'node:fs'
import { spawn, spawnSync } from 'node:child_process'
import { findChromium, noChromium } from './chromium.mjs'
import { ensureBuilt, ensureInstalled, root, run } from './prepare.mjs'

function ensureChromium() {
  if (findChromium()) return
  if (!existsSync('/usr/bin/apt-get') || process.env.PLAYWRIGHT_CHROMIUM) {
    console.error(noChromium)
    process.exit(1)
  }
  console.log('Installing Chromium from Debian’s packages …')
  const sudo = process.getuid?.() === 0 ? [] : ['sudo']
  for (const args of [
    ['apt-get', 'update'],
    ['apt-get', 'install', '-y', '--no-install-recommends', 'chromium'],
  ]) {
    const [command, ...rest] = [...sudo, ...args]
    run(command, rest, { DEBIAN_FRONTEND: 'noninteractive' })
  }
}

/** Runs programs beside each other, each line of them in order, and shows what each said under its title. */
async function beside(checks) {
  const ends = await Promise.all(
    Object.entries(checks).map(async ([title, commands]) => {
      let said = ''
      for (const [command, ...args] of commands) {
        const one = spawn(command, args, { cwd: root })
        for (const stream of [one.stdout, one.stderr]) stream.setEncoding('utf8').on('data', text => (said += text))
        const status = await new Promise(done => one.once('error', () => done(1)).once('close', done))
        if (status !== 0) return { title, said, status: status ?? 1 }
      }
      return { title, said, status: 0 }
    }),
  )
  for (const { title, said } of ends) console.log(`\n— ${title}\n${said}`)
  const failed = ends.find(({ status }) => status !== 0)
  if (failed) process.exit(failed.status)
}

/** Runs a test runner, shows its output, and gives it back for the counts. */
function runner(command, args) {
  const result = spawnSync(command, args, {
    cwd: root,
    encoding: 'utf8',
    maxBuffer: 1e8,
    env: { ...process.env, FORCE_COLOR: '0', NO_COLOR: '1' },
  })
  process.stdout.write(result.stdout)
  process.stderr.write(result.stderr)
  return { output: result.stdout, said: `${result.stdout}\n${result.stderr}`, failed: result.status !== 0 }
}

function count(output, word) {
  return Number(new RegExp(`(\\d+) ${word}`).exec(output)?.[1] ?? 0)
}

/** The tests that stand in the summary of the browser's runner under a word. */
function namedUnder(output, word) {
  const [, names = ''] = new RegExp(`^ {2}\\d+ ${word}\\n((?: {4}.*\\n)*)`, 'm').exec(output) ?? []
  return names.split('\n').filter(Boolean)
}

ensureInstalled()
ensureChromium()
await beside({
  'format and lint': [
    ['npx', 'prettier', '--check', '.'],
    ['npm', 'run', '--silent', 'lint'],
  ],
  types: [['npm', 'run', 'typecheck']],
})
console.log('\n— unit tests')
const unit = runner('npx', ['vitest', 'run'])
const unitCounts = unit.output.slice(unit.output.lastIndexOf('Tests '))
console.log('\n— build')
ensureBuilt()
console.log('\n— end-to-end tests')
// What fails once in hundreds of runs shall not hide what always fails, nor be hidden itself: it is tried again, and named.
const browser = runner('npx', ['playwright', 'test', '--retries=1'])
/** Named once more at the end: of a long run often no more than its last lines is kept. */
const failures = new Set([...(unit.said.match(/^ *FAIL .*$/gm) ?? []), ...namedUnder(browser.output, 'failed')])
for (const name of failures) console.log(`failed: ${name.trim()}`)
for (const name of namedUnder(browser.output, 'flaky'))
  console.log(`failed once, and passed when tried again: ${name.trim()}`)
const passed = count(unitCounts, 'passed') + count(browser.output, 'passed') + count(browser.output, 'flaky')
const failed = count(unitCounts, 'failed') + count(browser.output, 'failed')
console.log(`\nunit tests: ${count(unitCounts, 'passed')} passed, ${count(unitCounts, 'failed')} failed`)
console.log(
  `end-to-end tests: ${count(browser.output, 'passed')} passed, ${count(browser.output, 'flaky')} only when tried again, ` +
    `${count(browser.output, 'failed')} failed`,
)
console.log(`${passed} passed, ${failed} failed`)
if (unit.failed || browser.failed || passed === 0) process.exit(1)
