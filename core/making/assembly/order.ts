import { ownEntry } from '../../basics/own'
import { phases, type AssemblyStep, type Phase } from '../../model/data'

/** Orders practitioners differ in; each is only a wish, what must come before comes before. */
export const schools: Readonly<Record<string, { readonly words: string; readonly phases: readonly Phase[] }>> = {
  'motors first': { words: 'Frame and motors stand before anything else is soldered.', phases },
  'boards first': {
    words: 'Board, radio and video are wired and tested on the bench, then go into the frame.',
    phases: [
      'dry fit',
      'power',
      'first power',
      'boards',
      'radio',
      'video',
      'camera',
      'devices',
      'second power',
      'frame',
      'motors',
      'motor leads',
      'motor test',
      'set up',
      'coat',
      'close',
      'pack',
      'props',
      'weigh',
      'maiden',
    ],
  },
  'plugs first': {
    words: 'Whatever is plugged in or small goes on before the motors’ leads are in the way.',
    phases: [
      'dry fit',
      'frame',
      'power',
      'first power',
      'camera',
      'devices',
      'radio',
      'video',
      'boards',
      'motors',
      'motor leads',
      'motor test',
      'second power',
      'set up',
      'coat',
      'close',
      'pack',
      'props',
      'weigh',
      'maiden',
    ],
  },
}

/** Everything a step waits for among the steps there are. */
export function waitsFor(step: AssemblyStep): string[] {
  return [...new Set([...step.after, ...step.over])]
}

export type Ordered = { readonly steps: readonly AssemblyStep[] } | { readonly cycle: readonly AssemblyStep[] }

/**
 * Sorts steps so that each comes after what it waits for; among those that may come next, the one wished for first. What a
 * step waits for and is not there does not matter. Where steps wait for each other in a circle, the circle is given.
 */
export function inOrder(steps: readonly AssemblyStep[], school: string, wished: readonly string[] = []): Ordered {
  const byId = new Map(steps.map(step => [step.id, step]))
  const wishes = wishesOf(steps, school, wished)
  const left = new Set(steps.map(step => step.id))
  const sorted: AssemblyStep[] = []
  while (left.size > 0) {
    const ready = [...left].filter(id => waitsFor(byId.get(id)!).every(other => !left.has(other)))
    if (ready.length === 0) return { cycle: circleAmong(left, byId) }
    const next = ready.reduce((a, b) => (wishes.get(b)! < wishes.get(a)! ? b : a))
    sorted.push(byId.get(next)!)
    left.delete(next)
  }
  return { steps: sorted }
}

/** A number for each step, the least first: the school's order, into which the steps named are put in their own. */
function wishesOf(steps: readonly AssemblyStep[], school: string, wished: readonly string[]): Map<string, number> {
  const order = (ownEntry(schools, school) ?? schools['motors first']!).phases
  const usual = steps
    .map((step, i) => ({ step, i }))
    .sort((a, b) => order.indexOf(a.step.phase) - order.indexOf(b.step.phase) || a.i - b.i)
    .map(({ step }) => step.id)
  const named = wished.filter(id => usual.includes(id))
  const places = new Set(named)
  const merged = named.length === 0 ? usual : usual.map(id => (places.has(id) ? null : id))
  let next = 0
  return new Map(merged.map((id, i) => [id ?? named[next++]!, i]))
}

function circleAmong(left: ReadonlySet<string>, byId: ReadonlyMap<string, AssemblyStep>): AssemblyStep[] {
  const path: string[] = []
  let at = left.values().next().value!
  while (!path.includes(at)) {
    path.push(at)
    at = waitsFor(byId.get(at)!).find(other => left.has(other))!
  }
  return path.slice(path.indexOf(at)).map(id => byId.get(id)!)
}

/** A circle in words. */
export function circleWords(cycle: readonly AssemblyStep[]): string {
  if (cycle.length === 1) return `“${cycle[0]!.title}” waits for itself.`
  return `These wait for each other in a circle: ${[...cycle, cycle[0]!].map(step => `“${step.title}”`).join(' waits for ')}.`
}

/** The order after a step was moved so many places, up where `by` is negative, or the sentence why it cannot be. */
export function movedStep(
  sorted: readonly AssemblyStep[],
  id: string,
  by: number,
): { readonly order: readonly string[] } | { readonly problem: string } {
  const from = sorted.findIndex(step => step.id === id)
  const step = sorted[from]
  if (!step || by === 0 || !sorted[from + by]) return { problem: 'There is nothing further that way.' }
  const passed = by < 0 ? sorted.slice(from + by, from).reverse() : sorted.slice(from + 1, from + by + 1)
  for (const other of passed) {
    const [first, second] = by < 0 ? [other, step] : [step, other]
    if (waitsFor(second).includes(first.id))
      return { problem: `“${second.title}” comes after “${first.title}”: it needs it done.` }
  }
  const order = sorted.map(s => s.id).filter(other => other !== id)
  order.splice(from + by, 0, id)
  return { order }
}

/** All steps a step rests on, near and far. */
export function everythingBefore(steps: readonly AssemblyStep[], id: string): Set<string> {
  const byId = new Map(steps.map(step => [step.id, step]))
  const found = new Set<string>()
  const open = [id]
  while (open.length > 0) {
    const step = byId.get(open.pop()!)
    for (const other of step ? waitsFor(step) : []) {
      if (found.has(other) || !byId.has(other)) continue
      found.add(other)
      open.push(other)
    }
  }
  return found
}
