/** Everything a change must pass, in the order in which failures are cheapest. Ends with the counts of the runners. */
import { existsSync } from 'node:fs'
import { spawnSync } from 'node:child_process'
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
  return { output: result.stdout, failed: result.status !== 0 }
}

function count(output, word) {
  return Number(new RegExp(`(\\d+) ${word}`).exec(output)?.[1] ?? 0)
}

ensureInstalled()
ensureChromium()
console.log('\n— format')
run('npx', ['prettier', '--check', '.'])
console.log('\n— lint')
run('npm', ['run', '--silent', 'lint'])
console.log('\n— types')
run('npm', ['run', 'typecheck'])
console.log('\n— unit tests')
const unit = runner('npx', ['vitest', 'run'])
const unitCounts = unit.output.slice(unit.output.lastIndexOf('Tests '))
console.log('\n— build')
ensureBuilt()
console.log('\n— end-to-end tests')
const browser = runner('npx', ['playwright', 'test'])
const passed = count(unitCounts, 'passed') + count(browser.output, 'passed')
const failed = count(unitCounts, 'failed') + count(browser.output, 'failed')
console.log(`\nunit tests: ${count(unitCounts, 'passed')} passed, ${count(unitCounts, 'failed')} failed`)
console.log(`end-to-end tests: ${count(browser.output, 'passed')} passed, ${count(browser.output, 'failed')} failed`)
console.log(`${passed} passed, ${failed} failed`)
if (unit.failed || browser.failed || passed === 0) process.exit(1)
