import type { Line, Slot } from '../../../model/ledger'
import { propertiesOfLine, propertyNamed } from '../../../model/properties'
import {
  severities,
  type AskedProperty,
  type Check,
  type FitContext,
  type Judged,
  type CheckOutcome,
  type Severity,
} from './types'

type Pick = readonly Slot[] | ((context: FitContext) => readonly Line[])

/** A rule about two parts as data: who they are, which properties must be known, and what those come to. `x|y` needs one of both. */
export interface PairRule {
  readonly id: string
  readonly title: string
  readonly severity: Severity
  readonly a: Pick
  readonly b: Pick
  readonly needs: { readonly a: readonly string[]; readonly b: readonly string[] }
  /** It sits on one of the others, not on each: it fits where one of them suits it. */
  readonly anyOf?: boolean
  /** Whether what is needed of a is known another way (worked out from other properties). */
  readonly knownOtherwise?: (a: Line, context: FitContext) => boolean
  readonly judge: (a: Line, b: Line, context: FitContext) => Judged
}

/** A rule about one part and something that is no part (the ground gear, the pack's volts). */
export interface SingleRule {
  readonly id: string
  readonly title: string
  readonly severity: Severity
  readonly of: Pick
  readonly needs: readonly string[]
  /** Whether there is anything to hold the part against. */
  readonly when?: (line: Line, context: FitContext) => boolean
  readonly judge: (line: Line, context: FitContext) => Judged | readonly Judged[]
}

const picked = (pick: Pick, context: FitContext) =>
  typeof pick === 'function' ? pick(context) : context.lines.filter(line => pick.includes(line.slot))

/** Of each need that a line does not have, the first key its kind can have. */
export function missingOf(line: Line, needs: readonly string[]): AskedProperty[] {
  const facts = propertiesOfLine(line)
  const has = (key: string) =>
    facts[key] !== undefined && facts[key] !== '' && !(Array.isArray(facts[key]) && facts[key].length === 0)
  const asked = (keys: readonly string[]) => keys.find(key => propertyNamed(line.slot, key)) ?? keys[0]!
  return needs
    .filter(need => !need.split('|').some(has))
    .map(need => ({ lineId: line.id, key: asked(need.split('|')) }))
}

function outcome(judged: Judged, lineIds: readonly string[], severity: Severity): CheckOutcome {
  if ('fits' in judged) return { kind: 'fits', lineIds, words: judged.fits }
  return {
    kind: 'finding',
    severity: judged.severity ?? severity,
    lineIds,
    about: judged.about,
    title: judged.title,
    sentence: judged.sentence,
    ways: judged.ways ?? [],
  }
}

/** What a part sits on among several frames: those that say what is asked, or, where none does, the first of them. */
export function seats(...keys: readonly string[]) {
  return ({ lines }: FitContext): readonly Line[] => {
    const frames = lines.filter(line => line.slot === 'frame')
    const telling = frames.filter(frame => missingOf(frame, keys).length === 0)
    return telling.length > 0 ? telling : frames.slice(0, 1)
  }
}

const rank = (one: CheckOutcome) =>
  one.kind === 'fits' ? 0 : one.kind === 'finding' ? 1 + severities.length - severities.indexOf(one.severity) : 1
const all = (outcomes: readonly CheckOutcome[]) => outcomes
const kindest = (outcomes: readonly CheckOutcome[]) =>
  outcomes.length < 2 ? outcomes : [outcomes.reduce((best, one) => (rank(one) < rank(best) ? one : best))]

/** Makes a check of a rule about two parts: every a against every b. */
export function pairCheck(rule: PairRule): Check {
  return {
    id: rule.id,
    title: rule.title,
    severity: rule.severity,
    examine: context =>
      picked(rule.a, context).flatMap(a =>
        (rule.anyOf ? kindest : all)(
          picked(rule.b, context)
            .filter(b => b !== a)
            .map((b): CheckOutcome => {
              const [missingA, missingB] = [
                rule.knownOtherwise?.(a, context) ? [] : missingOf(a, rule.needs.a),
                missingOf(b, rule.needs.b),
              ]
              const asks = [...missingA, ...missingB]
              if (asks.length > 0)
                return {
                  kind: 'unknown',
                  lineIds: [a.id, b.id],
                  asks,
                  couldClash: rule.severity === 'clash' && (missingA.length === 0 || missingB.length === 0),
                }
              return outcome(rule.judge(a, b, context), [a.id, b.id], rule.severity)
            }),
        ),
      ),
  }
}

/** Makes a check of a rule about one part. */
export function singleCheck(rule: SingleRule): Check {
  return {
    id: rule.id,
    title: rule.title,
    severity: rule.severity,
    examine: context =>
      picked(rule.of, context)
        .filter(line => rule.when?.(line, context) ?? true)
        .flatMap((line): CheckOutcome[] => {
          const asks = missingOf(line, rule.needs)
          if (asks.length > 0)
            return [{ kind: 'unknown', lineIds: [line.id], asks, couldClash: rule.severity === 'clash' }]
          return [rule.judge(line, context)].flat().map(judged => outcome(judged, [line.id], rule.severity))
        }),
  }
}
