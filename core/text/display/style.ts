/** How figures and days are written for people. Files always have the point and year-month-day. */
export interface FigureStyle {
  readonly decimal: 'point' | 'comma'
  readonly days: DayOrder
}
export const dayOrders = ['day-month-year', 'month-day-year', 'year-month-day'] as const
export type DayOrder = (typeof dayOrders)[number]

export const plainStyle: FigureStyle = { decimal: 'point', days: 'day-month-year' }

let source: () => FigureStyle = () => plainStyle

/**
 * Says where the style of this page is read from; without it figures have the point. A source may be reactive: it is
 * asked for every figure. Servers never set it, so that what they write down and give out has the point.
 */
export function writeFiguresBy(read: () => FigureStyle): void {
  source = read
}
/** The style figures are written in now. */
export const figureStyle = (): FigureStyle => source()

/** Digits with the point, as they are written for people: the point becomes the mark that was chosen. */
export function withMark(digits: string): string {
  return source().decimal === 'comma' ? digits.replace('.', ',') : digits
}

/** What `make` writes with the point, whatever was chosen for the page: for files and for marks that programs read. */
export function withPoint<T>(make: () => T): T {
  const chosen = source
  source = () => ({ ...chosen(), decimal: 'point' })
  try {
    return make()
  } finally {
    source = chosen
  }
}

/** As many decimals as it takes, at most `mostDecimals`: `2.5`, `3`. */
export function figure(value: number, mostDecimals: number): string {
  const text = String(Number(Math.abs(value).toFixed(mostDecimals)))
  return withMark(value < 0 && Number(text) !== 0 ? `\u2212${text}` : text)
}

/** A count with its thousands apart: `20,000`, beside a decimal comma `20 000`. */
export function counted(count: number): string {
  const digits = String(Math.trunc(Math.abs(count)))
  const mark = source().decimal === 'comma' ? '\u202F' : ','
  let text = ''
  for (let end = digits.length; end > 0; end -= 3)
    text = digits.slice(Math.max(0, end - 3), end) + (text ? mark + text : '')
  return count < 0 ? `\u2212${text}` : text
}

const months = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
] as const

/** How much of a day is written: `3 November 2026`, `3 Nov 2026`, `3 Nov`. */
export type DayLength = 'long' | 'short' | 'without year'

/** A day given as `2026-11-03` in the order that was chosen; what is no such day is given back as it is. */
export function dayWords(day: string, length: DayLength = 'long'): string {
  const parts = /^(\d{4})-(\d{2})-(\d{2})$/.exec(day)
  const name = parts && months[Number(parts[2]) - 1]
  if (!parts || !name) return day
  const [year, date] = [parts[1]!, String(Number(parts[3]))]
  const month = length === 'long' ? name : name.slice(0, 3)
  switch (source().days) {
    case 'year-month-day':
      return length === 'without year' ? `${parts[2]}-${parts[3]}` : day
    case 'month-day-year':
      return length === 'without year' ? `${month} ${date}` : `${month} ${date}, ${year}`
    case 'day-month-year':
      return length === 'without year' ? `${date} ${month}` : `${date} ${month} ${year}`
  }
}
