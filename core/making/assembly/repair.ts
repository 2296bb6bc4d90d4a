import type { AssemblyStep } from '../../model/data'

/** How to get at a broken part and put everything back. */
export interface RepairPath {
  /** Steps undone, from the outside in; the last ones hold the part itself. */
  readonly takeApart: readonly AssemblyStep[]
  /** The same steps in the order of building. */
  readonly rebuild: readonly AssemblyStep[]
  /** Tests whose proof is lost by it. */
  readonly testsAgain: readonly AssemblyStep[]
  readonly minutes: number
}

/**
 * The least that must be undone to change a part: the steps it came on board or was worked on in, and whatever lies over
 * them. Everything else stays as it is. Tests are repeated where they prove a step done again.
 */
export function repairPath(sorted: readonly AssemblyStep[], lineId: string): RepairPath | null {
  const touching = sorted.filter(step => step.parts.some(part => part.lineId === lineId) || step.uses.includes(lineId))
  if (touching.length === 0) return null
  const undone = new Set(touching.map(step => step.id))
  let grew = true
  while (grew) {
    const over = sorted.filter(step => !undone.has(step.id) && step.over.some(id => undone.has(id)))
    for (const step of over) undone.add(step.id)
    grew = over.length > 0
  }
  const rebuild = sorted.filter(step => undone.has(step.id))
  const testsAgain = sorted.filter(
    step => step.test !== null && !undone.has(step.id) && step.proves.some(id => undone.has(id)),
  )
  // A setting is not taken apart, only made again.
  return {
    takeApart: rebuild.filter(step => step.phase !== 'set up').toReversed(),
    rebuild,
    testsAgain,
    minutes: [...rebuild, ...testsAgain].reduce((sum, step) => sum + step.minutes, 0),
  }
}
