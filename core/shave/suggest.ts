import { typicalClasses, type TypicalMass } from '../catalogue'
import { applyCommand } from '../commands'
import { fitReport, fixingsSchedule, planWires, type GroundGear } from '../fit'
import { plugPairG } from '../power'
import { measureOf, textOf } from '../properties'
import type { Build, Line, LoadoutChoice } from '../ledger'
import { countedLines, isOptional, type LineEstimates } from '../loadout'
import { makeShaving, type Shaving } from './types'

/** A shaving the ledger itself suggests, with the sum it comes from. */
export interface Suggestion { readonly shaving: Shaving, readonly because: string }

const fixed = (value: number) => value.toFixed(2)

/**
 * What the ledger suggests for a loadout: candidates lighter than what is fitted, and heavier ones to put on where there are
 * grams to spare; fittings that could stay at home, leads longer than the wire plan needs, screws, straps, plugs that could be
 * soldered; lines that are off and could be put on. What is on the list already is not
 * suggested again, nor a swap that would clash with what stays. `newId` makes the ids.
 */
export function suggestShavings(build: Build, choice: LoadoutChoice, estimates: LineEstimates, gear: GroundGear, newId: () => string): Suggestion[] {
  const known = build.shave?.shavings ?? []
  const suggestions: Suggestion[] = []
  const clashes = (of: Build) => fitReport(of, choice, gear).clashes
  const clashesNow = clashes(build)
  for (const candidate of build.lines) {
    const fitted = build.lines.find(line => line.id === candidate.insteadOf && line.state === 'fitted')
    if (candidate.state !== 'candidate' || !fitted || !candidate.mass || !fitted.mass || known.some(s => s.candidateId === candidate.id)) continue
    const [now, then] = [estimates.of(fitted).valueG, estimates.of(candidate).valueG]
    const because = `${fixed(now)} g now, ${fixed(then)} g with it`
    if (Math.abs(then - now) < 0.05 || clashes(applyCommand(build, { type: 'line.fit', id: candidate.id })) > clashesNow) continue
    if (then > now) {
      suggestions.push({ because: `${because}${broughtBy(fitted, candidate)}: worth it where there are grams to spare`, shaving: makeShaving({ id: newId(), what: `${candidate.name} instead of ${fitted.name}`.slice(0, 120), kind: 'put on', lineId: fitted.id, candidateId: candidate.id, gramsG: Number((now - then).toFixed(2)), evidence: 'listed' }) })
      continue
    }
    suggestions.push({ because, shaving: makeShaving({ id: newId(), what: `${candidate.name} instead of ${fitted.name}`.slice(0, 120), kind: fitted.slot === 'strap' ? 'lighter strap' : 'swap part', lineId: fitted.id, candidateId: candidate.id, gramsG: Number((now - then).toFixed(2)), evidence: 'listed' }) })
  }
  for (const line of countedLines(build, choice)) {
    if (!isOptional(line) || line.role !== 'fitting' || !line.mass || known.some(s => s.kind === 'leave off' && s.lineId === line.id)) continue
    suggestions.push({ because: `a fitting of ${fixed(estimates.of(line).valueG)} g`, shaving: makeShaving({ id: newId(), what: `leave off: ${line.name}`.slice(0, 120), kind: 'leave off', lineId: line.id, gramsG: Number(estimates.of(line).valueG.toFixed(2)), evidence: 'weighed' }) })
  }
  for (const { wire, savedG: trimmedG } of planWires(build.fit?.wires ?? []).rows) {
    if (!(trimmedG > 0.05)) continue
    const line = build.lines.find(l => l.state === 'fitted' && l.mass && (l.name === wire.from || l.name === wire.to || (/motor/i.test(wire.name) && l.slot === 'motor' && measureOf(l, 'leadLengthMm') !== undefined)))
    const what = `trim: ${wire.name}`
    if (!line || known.some(s => s.what === what)) continue
    suggestions.push({ because: `${wire.haveMm} mm there, ${wire.routeMm + wire.slackMm} mm needed`, shaving: makeShaving({ id: newId(), what, kind: 'trim leads', lineId: line.id, gramsG: Number(trimmedG.toFixed(2)), spreadG: Number((trimmedG * 0.1).toFixed(2)), evidence: 'worked out' }) })
  }
  for (const line of build.lines) {
    if (line.state !== 'off' || !line.mass || line.slot === 'pack' || known.some(s => s.kind === 'put on' && s.lineId === line.id)) continue
    const grams = estimates.of(line).valueG
    suggestions.push({ because: `${fixed(grams)} g, off now`, shaving: makeShaving({ id: newId(), what: `put on: ${line.name}`.slice(0, 120), kind: 'put on', lineId: line.id, gramsG: -Number(grams.toFixed(2)), evidence: 'weighed' }) })
  }
  return [...suggestions, ...fromJoints(build, newId), ...fromStraps(build, estimates, newId), ...fromPlugs(build, newId)].filter(({ shaving }) => !known.some(s => s.what === shaving.what))
}

/** What a heavier candidate has more of, where the parts say so. */
function broughtBy(fitted: Line, candidate: Line): string {
  if (fitted.pack && candidate.pack && candidate.pack.capacityMah > fitted.pack.capacityMah) return `, ${candidate.pack.capacityMah} in place of ${fitted.pack.capacityMah} mAh`
  const [was, comes] = [measureOf(fitted, 'powerMw'), measureOf(candidate, 'powerMw')]
  return was !== undefined && comes !== undefined && comes > was ? `, ${comes} in place of ${was} mW` : ''
}

/** Plugs on leads that could as well be soldered. The pack's own plug stays: it is unplugged after every flight. */
function fromPlugs(build: Build, newId: () => string): Suggestion[] {
  return build.lines.filter(line => line.state === 'fitted' && line.mass && line.slot !== 'pack' && line.slot !== 'power lead').flatMap((line): Suggestion[] => {
    const pair = plugPairG(textOf(line, 'plug') ?? '')
    if (!pair) return []
    const gramsG = Number((pair.grams * line.quantity).toFixed(2))
    return [{ because: `a mated pair weighs about ${fixed(pair.grams)} g, × ${line.quantity}; a dead one is then unsoldered`, shaving: makeShaving({ id: newId(), what: `solder the leads: ${line.name}`.slice(0, 120), kind: 'direct solder', lineId: line.id, gramsG, evidence: pair.known ? 'worked out' : 'guess' }) }]
  })
}

/** Screws longer than their joint needs, and steel ones that titanium would do for. Nothing softer: that is the builder's to dare. */
function fromJoints(build: Build, newId: () => string): Suggestion[] {
  return fixingsSchedule(build.fit?.joints ?? []).rows.flatMap(({ joint, massG, soldMm, shortestMm, materials }): Suggestion[] => {
    const line = build.lines.find(l => l.id === joint.lineId && l.state === 'fitted' && l.mass)
    if (!line || massG === null) return []
    const out: Suggestion[] = []
    const titanium = materials.find(m => /titanium/.test(m.material) && m.savesG > 0.1)
    if (titanium) out.push({ because: `${fixed(massG)} g of ${joint.material}, ${fixed(titanium.massG)} g of titanium`, shaving: makeShaving({ id: newId(), what: `titanium screws: ${joint.name}`.slice(0, 120), kind: 'change material', lineId: line.id, gramsG: Number(titanium.savesG.toFixed(2)), spreadG: Number((0.1 * titanium.savesG).toFixed(2)), evidence: 'worked out' }) })
    const shorter = joint.lengthMm !== null && soldMm !== null && soldMm < joint.lengthMm ? fixingsSchedule([{ ...joint, lengthMm: soldMm }]).rows[0]!.massG : null
    if (shorter !== null && massG - shorter > 0.05) out.push({ because: `${joint.lengthMm} mm where ${Number(shortestMm.toFixed(2))} mm would hold`, shaving: makeShaving({ id: newId(), what: `screws of ${soldMm} mm: ${joint.name}`.slice(0, 120), kind: 'change material', lineId: line.id, gramsG: Number((massG - shorter).toFixed(2)), spreadG: Number((0.1 * (massG - shorter)).toFixed(2)), evidence: 'worked out', loss: 0, lossWord: 'nothing' }) })
    return out
  })
}

/** Straps and pads well over the low end of the class they are most like. */
function fromStraps(build: Build, estimates: LineEstimates, newId: () => string): Suggestion[] {
  return build.lines.filter(line => line.state === 'fitted' && line.mass && (line.slot === 'strap' || line.slot === 'pad')).flatMap((line): Suggestion[] => {
    const eachG = estimates.of(line).valueG / line.quantity
    const away = ({ lowG, highG }: TypicalMass) => Math.max(lowG - eachG, 0, eachG - highG)
    const alike = typicalClasses(line.slot).toSorted((a, b) => away(a) - away(b) || b.lowG - a.lowG)[0]
    const savesG = alike ? (eachG - alike.lowG) * line.quantity : 0
    if (!alike || savesG < 0.3) return []
    return [{ because: `${fixed(eachG)} g now; ${alike.class} ones weigh ${alike.lowG} to ${alike.highG} g`, shaving: makeShaving({ id: newId(), what: `the lightest ${line.slot} of its class`, kind: line.slot === 'strap' ? 'lighter strap' : 'other', lineId: line.id, gramsG: Number(savesG.toFixed(2)), evidence: 'guess' }) }]
  })
}
