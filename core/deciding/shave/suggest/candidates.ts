import { fixed } from '../../../text/display'
import { applyCommand } from '../../../changes/commands'
import { makeShaving } from '../../../model/data'
import type { Line } from '../../../model/ledger'
import { measureOf } from '../../../model/properties'
import { clashesOf, type Suggestion, type SuggestionSetting } from './suggestion'

/** Candidates of the build in the place of what is fitted, where they do not clash. */
export function fromCandidates(setting: SuggestionSetting): Suggestion[] {
  const { build, estimates, puttingOn, newId } = setting
  const known = build.shave?.shavings ?? []
  const now = clashesOf(setting, build)
  return build.lines.flatMap((candidate): Suggestion[] => {
    const fitted = build.lines.find(line => line.id === candidate.insteadOf && line.state === 'fitted')
    if (
      candidate.state !== 'candidate' ||
      candidate.slot === 'pack' ||
      !fitted ||
      !candidate.mass ||
      !fitted.mass ||
      known.some(s => s.candidateId === candidate.id)
    )
      return []
    const [was, then] = [estimates.of(fitted).valueG, estimates.of(candidate).valueG]
    const because = `${fixed(was, 2)} g now, ${fixed(then, 2)} g with it`
    if (
      Math.abs(then - was) < 0.05 ||
      then > was !== puttingOn ||
      clashesOf(setting, applyCommand(build, { type: 'line.fit', id: candidate.id })) > now
    )
      return []
    const swap = {
      id: newId(),
      what: `${candidate.name} instead of ${fitted.name}`.slice(0, 120),
      lineId: fitted.id,
      candidateId: candidate.id,
      gramsG: Number((was - then).toFixed(2)),
      evidence: 'listed' as const,
    }
    return [
      puttingOn
        ? {
            because: `${because}${broughtBy(fitted, candidate)}: worth it where there are grams to spare`,
            shaving: makeShaving({ ...swap, kind: 'put on' }),
          }
        : { because, shaving: makeShaving({ ...swap, kind: fitted.slot === 'strap' ? 'lighter strap' : 'swap part' }) },
    ]
  })
}

/** What a heavier candidate has more of, where the parts say so. */
function broughtBy(fitted: Line, candidate: Line): string {
  const [was, comes] = [measureOf(fitted, 'powerMw'), measureOf(candidate, 'powerMw')]
  return was !== undefined && comes !== undefined && comes > was ? `, ${comes} in place of ${was} mW` : ''
}
