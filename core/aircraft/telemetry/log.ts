import { clockS, numberIn, unitFactors, type Columns, type Quantity } from './columns'

/** A log in columns of one length, times rising; NaN where a row says nothing. */
export interface TelemetryLog {
  readonly timeS: Float64Array
  readonly of: Readonly<Partial<Record<Exclude<Quantity, 'time'>, Float64Array>>>
  readonly setAside: LeftOutRows
}

/** Rows that were left out, and the first text met where a figure belongs. */
export interface LeftOutRows {
  /** Time ran backwards. */
  readonly backwards: number
  /** No time could be read. */
  readonly timeless: number
  /** Fields with a text in place of a figure; their rows stay. */
  readonly texts: number
  readonly firstText: { readonly row: number; readonly quantity: Quantity; readonly text: string } | null
}

const begunWith = 4096
const dayS = 24 * 3600
/** A clock that falls by more than this has passed midnight. */
const midnightS = dayS / 2

interface Values {
  readonly quantity: Exclude<Quantity, 'time'>
  readonly index: number
  readonly factor: number
  data: Float64Array
}

/** Reads rows of a log as they come. The first time is 0 s. */
export class LogReader {
  private size = 0
  private timeS = new Float64Array(begunWith)
  private readonly values: Values[]
  private readonly time: { readonly index: number; readonly factor: number; readonly isClock: boolean }
  private row = 0
  private firstS: number | null = null
  private lastS = -Infinity
  private midnights = 0
  private backwards = 0
  private timeless = 0
  private texts = 0
  private firstText: LeftOutRows['firstText'] = null

  /** Throws where no column is the time. */
  constructor(
    columns: Columns,
    private readonly isDecimalComma: boolean,
  ) {
    const { time } = columns
    if (!time) throw new RangeError('A log needs a column of time.')
    this.time = { index: time.index, factor: unitFactors.time[time.unit]!, isClock: time.unit === 'h:m:s' }
    this.values = (Object.keys(columns) as Quantity[]).flatMap(quantity => {
      const column = columns[quantity]
      if (quantity === 'time' || !column) return []
      const factor = unitFactors[quantity][column.unit]!
      return [{ quantity, index: column.index, factor, data: new Float64Array(begunWith) }]
    })
  }

  private at(row: readonly string[]): number {
    const text = row[this.time.index] ?? ''
    if (!this.time.isClock) return numberIn(text, this.isDecimalComma) * this.time.factor
    const s = clockS(text) + this.midnights * dayS
    if (s < this.lastS - midnightS) {
      this.midnights++
      return s + dayS
    }
    return s
  }

  push(row: readonly string[]): void {
    this.row++
    const s = this.at(row)
    if (!Number.isFinite(s)) {
      this.timeless++
      this.noteText('time', row[this.time.index] ?? '')
      return
    }
    if (s < this.lastS) {
      this.backwards++
      return
    }
    this.lastS = s
    this.firstS ??= s
    if (this.size === this.timeS.length) this.grow()
    this.timeS[this.size] = s - this.firstS
    for (const column of this.values) {
      const text = row[column.index] ?? ''
      const value = numberIn(text, this.isDecimalComma)
      if (Number.isNaN(value) && text.trim() !== '') this.noteText(column.quantity, text)
      column.data[this.size] = value * column.factor
    }
    this.size++
  }

  private noteText(quantity: Quantity, text: string): void {
    this.texts++
    this.firstText ??= { row: this.row, quantity, text: text.slice(0, 40) }
  }

  private grow(): void {
    const longer = (before: Float64Array) => {
      const after = new Float64Array(2 * before.length)
      after.set(before)
      return after
    }
    this.timeS = longer(this.timeS)
    for (const column of this.values) column.data = longer(column.data)
  }

  done(): TelemetryLog {
    return {
      timeS: this.timeS.subarray(0, this.size),
      of: Object.fromEntries(this.values.map(({ quantity, data }) => [quantity, data.subarray(0, this.size)])),
      setAside: {
        backwards: this.backwards,
        timeless: this.timeless,
        texts: this.texts,
        firstText: this.firstText,
      },
    }
  }
}
