import { fixed, figure } from '../../../text/display'
import { fixingsSchedule, planWires } from '../../../aircraft/fit'
import { plugPairG } from '../../../aircraft/power'
import { titaniumAlloy } from '../../../mass/mass-calculators'
import { endsAtMotors, makeShaving } from '../../../model/data'
import { measureOf, textOf } from '../../../model/properties'
import type { Suggestion, SuggestionSetting } from './suggestion'

/** Leads that are longer than their way. */
export function fromLeads({ build, newId }: SuggestionSetting): Suggestion[] {
  const suggestions: Suggestion[] = []
  for (const { wire, savedG: trimmedG } of planWires(build.fit?.wires ?? []).rows) {
    if (!(trimmedG > 0.05)) continue
    const line = build.lines.find(
      l =>
        l.state === 'fitted' &&
        l.mass &&
        (l.name === wire.from ||
          l.name === wire.to ||
          (l.slot === 'motor' && endsAtMotors(wire) && measureOf(l, 'leadLengthMm') !== undefined)),
    )
    const what = `trim: ${wire.name}`
    if (!line) continue
    suggestions.push({
      because: `${wire.haveMm} mm there, ${wire.routeMm + wire.slackMm} mm needed`,
      shaving: makeShaving({
        id: newId(),
        what,
        kind: 'trim leads',
        lineId: line.id,
        gramsG: Number(trimmedG.toFixed(2)),
        spreadG: Number((trimmedG * 0.1).toFixed(2)),
        evidence: 'worked out',
      }),
    })
  }
  return suggestions
}

/** Plugs on leads that could as well be soldered. The pack's own plug stays: it is unplugged after every flight. */
export function fromPlugs({ build, newId }: SuggestionSetting): Suggestion[] {
  return build.lines
    .filter(line => line.state === 'fitted' && line.mass && line.slot !== 'pack' && line.slot !== 'power lead')
    .flatMap((line): Suggestion[] => {
      const pair = plugPairG(textOf(line, 'plug') ?? '')
      if (!pair) return []
      const gramsG = Number((pair.grams * line.quantity).toFixed(2))
      return [
        {
          because: `a mated pair weighs about ${fixed(pair.grams, 2)} g, × ${line.quantity}; a dead one is then unsoldered`,
          shaving: makeShaving({
            id: newId(),
            what: `solder the leads: ${line.name}`.slice(0, 120),
            kind: 'direct solder',
            lineId: line.id,
            gramsG,
            evidence: pair.known ? 'worked out' : 'guess',
          }),
        },
      ]
    })
}

/** Screws longer than their joint needs, and steel ones that titanium would do for. Nothing softer: that is the builder's to dare. */
export function fromJoints({ build, newId }: SuggestionSetting): Suggestion[] {
  return fixingsSchedule(build.fit?.joints ?? []).rows.flatMap(
    ({ joint, massG, soldMm, shortestMm, materials }): Suggestion[] => {
      const line = build.lines.find(l => l.id === joint.lineId && l.state === 'fitted' && l.mass)
      if (!line || massG === null) return []
      const out: Suggestion[] = []
      const titanium = materials.find(m => m.material === titaniumAlloy && m.savesG > 0.1)
      if (titanium)
        out.push({
          because: `${fixed(massG, 2)} g of ${joint.material}, ${fixed(titanium.massG, 2)} g of titanium`,
          shaving: makeShaving({
            id: newId(),
            what: `titanium screws: ${joint.name}`.slice(0, 120),
            kind: 'change material',
            lineId: line.id,
            gramsG: Number(titanium.savesG.toFixed(2)),
            spreadG: Number((0.1 * titanium.savesG).toFixed(2)),
            evidence: 'worked out',
          }),
        })
      const shorter =
        joint.lengthMm !== null && soldMm !== null && soldMm < joint.lengthMm
          ? fixingsSchedule([{ ...joint, lengthMm: soldMm }]).rows[0]!.massG
          : null
      if (shorter !== null && massG - shorter > 0.05)
        out.push({
          because: `${figure(joint.lengthMm!, 2)} mm where ${figure(shortestMm, 2)} mm would hold`,
          shaving: makeShaving({
            id: newId(),
            what: `screws of ${soldMm} mm: ${joint.name}`.slice(0, 120),
            kind: 'change material',
            lineId: line.id,
            gramsG: Number((massG - shorter).toFixed(2)),
            spreadG: Number((0.1 * (massG - shorter)).toFixed(2)),
            evidence: 'worked out',
            loss: 0,
            lossWord: 'nothing',
          }),
        })
      return out
    },
  )
}
