import { sigmaG, type Estimate } from '../../maths/estimate'
import { makeLine, makeMass, type Build, type Line, type Mass } from '../../model/ledger'
import { coverageFactor95 } from '../../maths/numbers'
import type { Shaving } from '../../model/data'

/** What doing a shaving does to the ledger. */
export type ShavingEffect =
  | { readonly kind: 'swap'; readonly candidateId: string }
  /** Another pack that is there is flown in the place of this one. */
  | { readonly kind: 'pack'; readonly lineId: string; readonly packLineId: string }
  | { readonly kind: 'off'; readonly lineId: string }
  | { readonly kind: 'grams'; readonly lineId: string }
  /** A line that was off comes on board; or something new does, as a line of its own. */
  | { readonly kind: 'on'; readonly lineId: string }
  | { readonly kind: 'new line' }
  /** Nobody has said which line it touches, or that line is not fitted. */
  | { readonly kind: 'none' }

export function effectOf(build: Build, shaving: Shaving): ShavingEffect {
  const line = build.lines.find(l => l.id === shaving.lineId)
  if (shaving.candidateId !== null) {
    const candidate = build.lines.find(l => l.id === shaving.candidateId)
    if (
      candidate?.slot === 'pack' &&
      candidate.state === 'fitted' &&
      line?.slot === 'pack' &&
      line.state === 'fitted' &&
      line !== candidate
    )
      return { kind: 'pack', lineId: line.id, packLineId: candidate.id }
    return candidate && candidate.state !== 'fitted' ? { kind: 'swap', candidateId: candidate.id } : { kind: 'none' }
  }
  if (shaving.kind === 'put on' && shaving.lineId === null) return { kind: 'new line' }
  if (shaving.kind === 'put on' && line?.state === 'off') return { kind: 'on', lineId: line.id }
  if (!line || line.state !== 'fitted') return { kind: 'none' }
  if (shaving.kind === 'leave off') return { kind: 'off', lineId: line.id }
  return line.mass ? { kind: 'grams', lineId: line.id } : { kind: 'none' }
}

/** What is put on as a line of its own. */
export function lineOfShaving(shaving: Shaving, mass: Mass | null): Line {
  return makeLine({
    id: `on-${shaving.id}`.slice(0, 64),
    slot: 'other',
    name: shaving.what,
    priceEachCents: shaving.cents,
    mass,
  })
}

/** The grams of what is put on, by its forecast or by the scale. */
function putOnMass(shaving: Shaving, { gramsG, spreadG, weighed }: ShavedOff, versionId: string): Mass {
  return makeMass({
    versionId,
    evidence: weighed ? 'weighed' : shaving.evidence,
    valueG: Math.max(0, -gramsG),
    ownSpreadG: spreadG,
    origin: 'put on',
  })
}

/**
 * What remains on board of a line that was left off, where the scale says less came off than was booked; less than this
 * is nothing, grams.
 */
const leastRestG = 0.005

/**
 * The line that so many grams cannot come off, because it weighs less; null where they can. Of a part left off or swapped
 * the scale may say a little more than is booked: its spread is allowed for. `before` as in {@link massAfter}.
 */
export function takesTooMuch(
  build: Build,
  shaving: Shaving,
  before: (line: Line) => Estimate,
  gramsG: number,
  spreadG = 0,
): { readonly line: Line; readonly lineG: number } | null {
  const effect = effectOf(build, shaving)
  const id =
    effect.kind === 'grams' || effect.kind === 'off'
      ? effect.lineId
      : effect.kind === 'swap'
        ? build.lines.find(l => l.id === effect.candidateId)!.insteadOf
        : null
  const line = build.lines.find(l => l.id === id)
  if (!line?.mass) return null
  const known = before(line)
  const most = known.valueG + (effect.kind === 'grams' ? 0 : coverageFactor95 * sigmaG(known) + spreadG)
  return gramsG > most + 1e-9 ? { line, lineG: known.valueG } : null
}

/**
 * The grams a shaving gives a line: the one it touches, the one it fits instead, or the one it makes; null where that line is
 * booked as it stands. What the scale said is what is booked, whatever was forecast: a part fitted instead weighs what the
 * other weighed less what came off, and of a part left off the rest stays. `before` gives what a line was known to be by
 * itself, `versionId` the id of the new version.
 */
export function massAfter(
  build: Build,
  shaving: Shaving,
  before: (line: Line) => Estimate,
  off: ShavedOff,
  versionId: (earlier: string) => string,
): Mass | null {
  const effect = effectOf(build, shaving)
  const lineOf = (id: string | null) => build.lines.find(l => l.id === id)
  const trimmed = (line: Line) => trimmedMass(line, before(line), shaving.what, off, versionId(line.mass!.versionId))
  switch (effect.kind) {
    case 'none':
    case 'pack':
      return null
    case 'new line':
      return putOnMass(shaving, off, versionId('new'))
    case 'grams':
      return trimmed(lineOf(effect.lineId)!)
    case 'on':
      return off.weighed
        ? { ...putOnMass(shaving, off, versionId('new')), valueCount: lineOf(effect.lineId)!.quantity }
        : null
    case 'off': {
      const line = lineOf(effect.lineId)!
      return off.weighed && line.mass && before(line).valueG - off.gramsG > leastRestG ? trimmed(line) : null
    }
    case 'swap': {
      const candidate = lineOf(effect.candidateId)!
      const replaced = lineOf(candidate.insteadOf)
      return off.weighed && replaced?.mass ? { ...trimmed(replaced), valueCount: candidate.quantity } : null
    }
  }
}

/** The difference a shaving makes: grams off, their ± at 95 %, whether a scale said so, and the day. */
export interface ShavedOff {
  readonly gramsG: number
  readonly spreadG: number
  readonly weighed: boolean
  readonly on: string
}

/**
 * The mass of a line after so many grams came off it. `before` is what the line was known to be by itself: all its causes go
 * along, so that what it shares with other lines stays shared; the difference adds one of its own. A line that was weighed is
 * worked out from then on, unless the difference was weighed too.
 */
export function trimmedMass(
  line: Line,
  before: Estimate,
  what: string,
  { gramsG, spreadG, weighed, on }: ShavedOff,
  versionId: string,
): Mass {
  const evidence = line.mass!.evidence === 'weighed' && !weighed ? 'worked out' : line.mass!.evidence
  return makeMass({
    versionId,
    evidence,
    valueG: Math.max(0, Number((before.valueG - gramsG).toFixed(9))),
    valueCount: line.quantity,
    resolutionG: line.mass!.resolutionG,
    basis: 'as fitted',
    origin: `shaved: ${what}`.slice(0, 200),
    weighing: {
      takenAt: `${on}T12:00:00.000Z`,
      scaleId: 'none',
      scaleName: 'a scale not on the list',
      checkId: null,
      method: weighed ? 'by difference' : 'forecast difference',
      displaysG: [gramsG],
      tare: null,
      contributions: { ...before.contributions, [`product:${versionId}`]: spreadG / coverageFactor95 },
      supersedes: line.mass!.versionId,
    },
  })
}
