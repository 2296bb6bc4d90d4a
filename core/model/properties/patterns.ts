import { mmPerInch, singleSpaced } from '../../text/units'

/** Where the holes of a mounting are: points in millimetres about the middle, and the thread or hole they are made for. */
export interface HolePattern {
  readonly holes: readonly (readonly [xMm: number, yMm: number])[]
  readonly thread: string | null
  readonly text: string
}

/** The longest text that is read as a hole pattern. */
const longestPattern = 60

const perUnit: Record<string, number> = { mm: 1, in: mmPerInch, '"': mmPerInch, '″': mmPerInch, cm: 10 }
const number = String.raw`(\d{1,5}(?:[.,]\d{1,5})?)`
const unit = String.raw` ?(mm|in|cm|"|″)?`
const rectangle = new RegExp(String.raw`^${number}${unit} ?[x×] ?${number}${unit} ?(M\d(?:[.,]\d)?)?$`, 'i')
const circle = new RegExp(String.raw`^(\d) ?(?:holes? )?(?:on|at) ?${number}${unit} ?(M\d(?:[.,]\d)?)?$`, 'i')

const value = (text: string) => Number(text.replace(',', '.'))
const scaled = (text: string, own: string | undefined, other: string | undefined) =>
  value(text) * perUnit[(own ?? other ?? 'mm').toLowerCase()]!

/**
 * Reads a hole pattern: `12×12 M2` (four holes, millimetres unless it says inches), or `4 on 9 M2` (holes on a circle of
 * 9 mm). Null when it is neither.
 */
export function parsePattern(text: string): HolePattern | null {
  if (text.length > longestPattern) return null
  const trimmed = singleSpaced(text)
  const sides = rectangle.exec(trimmed)
  if (sides) {
    const x = scaled(sides[1]!, sides[2], sides[4]) / 2
    const y = scaled(sides[3]!, sides[4], sides[2]) / 2
    if (!(x > 0.25 && y > 0.25 && x < 200 && y < 200)) return null
    return {
      holes: [
        [x, y],
        [-x, y],
        [-x, -y],
        [x, -y],
      ],
      thread: thread(sides[5]),
      text: trimmed,
    }
  }
  const round = circle.exec(trimmed)
  if (!round) return null
  const count = Number(round[1])
  const radius = scaled(round[2]!, round[3], undefined) / 2
  if (count < 2 || !(radius > 0.25 && radius < 200)) return null
  const holes = Array.from(
    { length: count },
    (_, i) => [radius * Math.cos((2 * Math.PI * i) / count), radius * Math.sin((2 * Math.PI * i) / count)] as const,
  )
  return { holes, thread: thread(round[4]), text: trimmed }
}

function thread(text: string | undefined): string | null {
  return text ? text.toUpperCase().replace(',', '.') : null
}

/** Holes are drilled and cast to about this. */
const toleranceMm = 0.25

/**
 * The turn that lays one pattern on the other, degrees from 0 up to 360, or null when no turn does. Holes must meet
 * within a quarter of a millimetre; 12 mm across and 0.472 in across are the same.
 */
export function turnBetween(a: HolePattern, b: HolePattern): number | null {
  if (a.holes.length !== b.holes.length) return null
  const [x, y] = a.holes[0]!
  const turns = b.holes
    .map(([u, v]) => Math.atan2(v, u) - Math.atan2(y, x))
    .map(turn => (turn + 4 * Math.PI) % (2 * Math.PI))
    .sort((p, q) => p - q)
  for (const turn of turns) {
    const cos = Math.cos(turn)
    const sin = Math.sin(turn)
    const laid = a.holes.map(([p, q]) => [p * cos - q * sin, p * sin + q * cos] as const)
    const free = [...b.holes]
    const meets = laid.every(([p, q]) => {
      const at = free.findIndex(([u, v]) => Math.hypot(u - p, v - q) <= toleranceMm)
      if (at >= 0) free.splice(at, 1)
      return at >= 0
    })
    if (meets) return (Math.round(((turn * 180) / Math.PI) * 10) / 10) % 360
  }
  return null
}

/** The first two of several patterns that meet, with the turn between them. */
export function meetingPatterns(
  mine: readonly string[],
  theirs: readonly string[],
): { mine: HolePattern; theirs: HolePattern; turnDeg: number } | null {
  const read = (texts: readonly string[]) => texts.map(parsePattern).filter(pattern => pattern !== null)
  for (const a of read(mine)) {
    for (const b of read(theirs)) {
      const turnDeg = turnBetween(a, b)
      if (turnDeg !== null) return { mine: a, theirs: b, turnDeg }
    }
  }
  return null
}
