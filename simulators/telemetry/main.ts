/**
 * Writes a made-up log beside its truth: `jiti simulators/telemetry/main.ts log.csv [seed] [rows a second] [seconds]`; the truth
 * goes to `log.csv.truth.json`.
 */
import { writeFileSync } from 'node:fs'
import { flyAndLog, logText, usualFlight } from './flight-log'

const [path, ...figures] = process.argv.slice(2)
if (!path) throw new Error('Say where the log is to be written.')
const [seed = 1, rowsPerSecond = 20, seconds = 200] = figures.map(Number)
// Longer flights are gentler: the pack is the same.
const meanW = Math.min(usualFlight.meanW, (usualFlight.meanW * usualFlight.seconds) / seconds)
const { rows, truth } = flyAndLog({ ...usualFlight, seed, rowsPerSecond, seconds, meanW })
writeFileSync(path, logText(rows))
writeFileSync(`${path}.truth.json`, `${JSON.stringify(truth, null, 2)}\n`)
