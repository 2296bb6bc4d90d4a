/** A log of 200,000 rows of 12 columns read and worked out, against the same text parsed into arrays alone. */
import Papa from 'papaparse'
import {
  airborne,
  airborneThresholdA,
  logFigures,
  loggedResistance,
  LogReader,
  readHeads,
  withExtremes,
} from '../core/aircraft/telemetry'
import { flyAndLog, logText, usualFlight } from '../simulators/telemetry/flight-log'

const rows = 200_000
const { rows: flown } = flyAndLog({ ...usualFlight, rowsPerSecond: 500, lostShare: 0 })
const lines = logText(flown).split('\n')
// Seven more columns beside the five, and the flight again and again until there are rows enough.
const more = ',1.25,2.5,0,17,-3.125,88,1013.2'
const text = [
  `${lines[0]},a1,a2,a3,a4,a5,a6,a7`,
  ...Array.from({ length: rows }, (_, i) => {
    const line = lines[1 + (i % (lines.length - 1))]!
    return `${(i / 500).toFixed(3)}${line.slice(line.indexOf(','))}${more}`
  }),
].join('\n')

function bare(): number {
  return Papa.parse<string[]>(text).data.length
}
function whole(): number {
  const data = Papa.parse<string[]>(text).data
  const { columns, headRows, isDecimalComma } = readHeads(data.slice(0, 200))
  const reader = new LogReader(columns, isDecimalComma)
  for (let i = headRows; i < data.length; i++) reader.push(data[i]!)
  const log = reader.done()
  const stretch = airborne(log, airborneThresholdA(log)!)[0]!
  const drawn = [log.of.packV!, log.of.amps!, log.of.throttle!].map(values =>
    withExtremes(log.timeS, values, { fromS: 0, toS: log.timeS.at(-1)! }, 1000),
  )
  const told = loggedResistance(log, stretch, 4)
  return logFigures(log, stretch, 4).mah + drawn.length + ('mohm' in told ? told.mohm : 0)
}
const timed = (work: () => number) => {
  const from = performance.now()
  work()
  return performance.now() - from
}
for (const work of [bare, whole]) work()
const ratios = Array.from({ length: 7 }, () => {
  const of = timed(bare)
  return { ratio: timed(whole) / of, of }
})
const median = (values: number[]) => values.sort((a, b) => a - b)[Math.floor(values.length / 2)]!
console.log(
  `${rows} rows of 12 columns: read and worked out / parsed alone = ${median(ratios.map(one => one.ratio)).toFixed(2)}   ` +
    `(parsed alone in ${median(ratios.map(one => one.of)).toFixed(0)} ms; at most 2.5, drawing included)`,
)
