import { addEstimates, scaleEstimate, sigmaG, type Estimate } from '../../maths/estimate'
import { subjectOf, type Build, type Line, type Observation } from '../../model/ledger'
import type { ListingBiasTable } from '../listings'
import { Conditioning, linearObservation, linearObservations } from './condition'

/** A line that could explain a difference, and how. */
export interface Suspect {
  readonly lineId: string
  readonly why: 'its spread' | 'not on the pan' | 'on the pan though not ticked'
  /** How much of the difference it would explain, grams. */
  readonly explainsG: number
  /** How unlikely that is for it, in its own standard uncertainties. */
  readonly stretch: number
}

/** A weighing of several lines against what the ledger expects of it. */
export interface Reconciliation {
  /** What the scale should have shown, with the spread of the comparison. */
  readonly expected: Estimate
  /** Display minus expectation, grams: positive when more is on the pan than is booked. */
  readonly differenceG: number
  readonly sigmaG: number
  readonly z: number
  /** |z| ≤ 2: can be taken in. */
  readonly agrees: boolean
  readonly suspects: readonly Suspect[]
  /** Lines that would weigh less than nothing if it were taken in: then it cannot be. */
  readonly belowNothing: readonly string[]
}

/** A display below this share of what is expected is an empty pan, or one not loaded yet: nothing is compared with it. */
const leastShareCompared = 0.3

/** Whether a weighing is near enough to what the ledger expects of it to be compared with it at all. */
export function isComparable(weighedG: number, expectedG: number): boolean {
  return weighedG > 0 && weighedG >= leastShareCompared * expectedG
}

/**
 * Compares an observation with its prediction from everything else taken in. `others` are lines of the build that were
 * not ticked as being on the pan.
 */
export function reconcile(
  observation: Observation,
  build: Pick<Build, 'lines' | 'observations'>,
  others: readonly Line[],
  honesty: ListingBiasTable,
): Reconciliation {
  const lines = new Map(build.lines.map(line => [line.id, line]))
  const rest = { lines: build.lines, observations: build.observations.filter(o => o.id !== observation.id) }
  const known = new Conditioning(linearObservations(rest, honesty))
  const { parts, observed } = linearObservation(observation, lines, honesty)
  const predicted = addEstimates([...parts, { valueG: 0, contributions: observed.contributions }])
  const expected = known.of(predicted)
  const predictedCommon = known.inCommon(predicted)
  const differenceG = observed.valueG - expected.valueG
  const sigma = sigmaG(expected)
  const z = sigma === 0 ? (Math.abs(differenceG) < 1e-9 ? 0 : Math.sign(differenceG) * Infinity) : differenceG / sigma
  const suspects = observation.subjects.flatMap((subject, i): Suspect[] => {
    const part = known.of(parts[i]!)
    const own = sigmaG(part)
    const found: Suspect[] = []
    if (own > 0 && sigma > 0) {
      const explainsG = (known.covarianceG2(parts[i]!, predicted, predictedCommon) / sigma ** 2) * differenceG
      found.push({ lineId: subject.id, why: 'its spread', explainsG, stretch: Math.abs(differenceG) / own })
    }
    if (isAbout(part.valueG, -differenceG, sigma))
      found.push({ lineId: subject.id, why: 'not on the pan', explainsG: -part.valueG, stretch: 0 })
    return found
  })
  for (const line of others) {
    if (!line.mass) continue
    const part = known.of(linearObservation({ ...observation, subjects: [subjectOf(line)] }, lines, honesty).parts[0]!)
    if (isAbout(part.valueG, differenceG, sigma))
      suspects.push({ lineId: line.id, why: 'on the pan though not ticked', explainsG: part.valueG, stretch: 0 })
  }
  suspects.sort(
    (a, b) =>
      Number(b.why !== 'its spread') - Number(a.why !== 'its spread') || Math.abs(b.explainsG) - Math.abs(a.explainsG),
  )
  const after = new Conditioning(
    linearObservations(
      { lines: rest.lines, observations: [...rest.observations, { ...observation, state: 'taken in' }] },
      honesty,
    ),
  )
  const belowNothing = observation.subjects.flatMap((subject, i) =>
    after.of(parts[i]!).valueG < 0 ? [subject.id] : [],
  )
  return { expected, differenceG, sigmaG: sigma, z, agrees: Math.abs(z) <= 2, suspects, belowNothing }
}

/** Whether a line's grams are what is missing, within two joint standard uncertainties, and not next to nothing. */
function isAbout(valueG: number, wantedG: number, sigma: number): boolean {
  return wantedG > 3 * sigma && Math.abs(valueG - wantedG) <= 2 * sigma + 0.02 * wantedG
}

/**
 * The difference as a mass of its own, with the signed causes that make every total which holds the line and the same
 * parts exactly the one displayed: `truth = Δ − Σ parts' causes − the weighing's causes`.
 */
export function differenceAsMass(
  observation: Observation,
  lines: readonly Line[],
  honesty: ListingBiasTable,
): Estimate {
  const { parts, observed } = linearObservation(observation, new Map(lines.map(line => [line.id, line])), honesty)
  const sum = addEstimates([...parts, { valueG: 0, contributions: observed.contributions }])
  return addEstimates([{ valueG: observed.valueG, contributions: {} }, scaleEstimate(sum, -1)])
}
