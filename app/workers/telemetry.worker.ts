import Papa from 'papaparse'
import {
  airborne,
  airborneThresholdA,
  chargeSoFar,
  gapsOf,
  logFigures,
  loggedResistance,
  LogReader,
  loggedPackVolts,
  readHeads,
  withExtremes,
  type Columns,
  type HeadsRead,
  type LogFigures,
  type LoggedResistance,
  type NoResistance,
  type LeftOutRows,
  type Stretch,
  type TelemetryLog,
} from '#core/aircraft/telemetry'

export interface SampledPoint {
  readonly timeS: number
  readonly value: number
}
export type CurveKey = 'volts' | 'amps' | 'mah'
export type Curves = Readonly<Partial<Record<CurveKey, readonly SampledPoint[]>>>

/** What the page asks: a log read, perhaps with its columns corrected; what a stretch adds up to; curves of a stretch. */
export type TelemetryRequest =
  | { readonly kind: 'read'; readonly file: Blob; readonly cells: number; readonly columns: Columns | null }
  | { readonly kind: 'stretch'; readonly stretch: Stretch }
  | { readonly kind: 'curves'; readonly stretch: Stretch; readonly buckets: number }
export interface LogRead {
  readonly heads: HeadsRead
  readonly rows: number
  readonly setAside: LeftOutRows
  readonly endS: number
  readonly thresholdA: number | null
  readonly stretches: readonly Stretch[]
  readonly gaps: readonly Stretch[]
}
export type TelemetryReply =
  | { readonly kind: 'progress'; readonly done: number; readonly of: number }
  | { readonly kind: 'problem'; readonly problem: string }
  | { readonly kind: 'read'; readonly read: LogRead }
  | { readonly kind: 'stretch'; readonly figures: LogFigures; readonly resistance: LoggedResistance | NoResistance }
  | { readonly kind: 'curves'; readonly stretch: Stretch; readonly curves: Curves }

const say = (reply: TelemetryReply) => postMessage(reply)
/** Rows looked at to understand the heads. */
const lookedAt = 200

let log: TelemetryLog | null = null
let mah: Float64Array = new Float64Array()
let cells = 1

/** Reads a log as it comes in, a part of the file after another, so that no part of it stands in memory as text twice. */
function read(
  file: Blob,
  corrected: Columns | null,
): Promise<{ heads: HeadsRead; log: TelemetryLog } | { problem: string }> {
  let first: string[][] = []
  let heads: HeadsRead | null = null
  let reader: LogReader | null = null
  function begin(): boolean {
    heads = readHeads(first)
    if (corrected) heads = { ...heads, columns: corrected }
    if (!heads.columns.time) return false
    reader = new LogReader(heads.columns, heads.isDecimalComma)
    for (const row of first.slice(heads.headRows)) reader.push(row)
    first = []
    return true
  }
  return new Promise(done => {
    let isTimeless = false
    Papa.parse<string[]>(file as File, {
      skipEmptyLines: true,
      chunkSize: 1_000_000,
      chunk({ data, meta: { cursor } }, parser) {
        let from = 0
        if (!reader) {
          while (first.length < lookedAt && from < data.length) first.push(data[from++]!)
          if (first.length >= lookedAt && !begin()) {
            isTimeless = true
            parser.abort()
            return
          }
        }
        if (reader) for (let i = from; i < data.length; i++) reader.push(data[i]!)
        say({ kind: 'progress', done: Math.min(file.size, cursor), of: file.size })
      },
      complete() {
        if (!reader && !isTimeless && first.length > 1 && !begin()) isTimeless = true
        if (isTimeless)
          done({ problem: 'No column of it is a time: a log says when each row was taken. Choose the column.' })
        else if (!reader || !heads) done({ problem: 'There are no rows in it: nothing was taken in.' })
        else done({ heads, log: reader.done() })
      },
      error: error => done({ problem: `It could not be read: ${error.message}` }),
    })
  })
}

async function readAll({ file, cells: of, columns }: Extract<TelemetryRequest, { kind: 'read' }>) {
  cells = of
  const result = await read(file, columns)
  if ('problem' in result) return say({ kind: 'problem', problem: result.problem })
  const { amps } = result.log.of
  if (result.log.timeS.length < 2)
    return say({ kind: 'problem', problem: 'No row of it has a time that can be read: is the right column the time?' })
  if (amps && !amps.some(value => !Number.isNaN(value)))
    return say({ kind: 'problem', problem: 'Its column of amps holds no figure: choose another column.' })
  log = result.log
  mah = chargeSoFar(log)
  const thresholdA = airborneThresholdA(log)
  say({
    kind: 'read',
    read: {
      heads: result.heads,
      rows: log.timeS.length,
      setAside: log.setAside,
      endS: log.timeS.at(-1)!,
      thresholdA,
      stretches: thresholdA === null ? [] : airborne(log, thresholdA),
      gaps: gapsOf(log),
    },
  })
}

addEventListener('message', ({ data }: MessageEvent<TelemetryRequest>) => {
  if (data.kind === 'read') return void readAll(data)
  if (!log) return
  const { stretch } = data
  if (data.kind === 'stretch')
    say({
      kind: 'stretch',
      figures: logFigures(log, stretch, cells),
      resistance: loggedResistance(log, stretch, cells),
    })
  else {
    const volts = loggedPackVolts(log, cells)
    const curve = (values: Float64Array) => withExtremes(log!.timeS, values, stretch, data.buckets)
    say({
      kind: 'curves',
      stretch,
      curves: {
        ...(volts ? { volts: curve(volts) } : {}),
        ...(log.of.amps ? { amps: curve(log.of.amps), mah: curve(mah) } : {}),
      },
    })
  }
})
