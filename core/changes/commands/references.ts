import type { FitPlan, JointPlan, Layer, WirePlan } from '../../model/data'
import type { Build, Line } from '../../model/ledger'
import { measureOf, outputsOf, textOf } from '../../model/properties'

/**
 * What hung on a line hangs on the one that took its place: feeds where it has the output (what it has not stays as said,
 * to be done, and is right again when the old part comes back), the joint whose screws it is, its layer of the stack,
 * leads from or to it. It takes over where its own power comes from, what it travels with, and whether it comes off.
 */
export function followReplacement(build: Build, replaced: Line, by: Line): Build {
  const outputs = new Set(['', ...outputsOf(by).map(output => output.name)])
  const lines = build.lines.map((line): Line => {
    if (line.id === by.id)
      return {
        ...line,
        feed: line.feed ?? replaced.feed,
        tie: line.tie ?? replaced.tie,
        removable: line.removable || replaced.removable,
      }
    return line.feed?.from === replaced.id && outputs.has(line.feed.output)
      ? { ...line, feed: { from: by.id, output: line.feed.output } }
      : line
  })
  return { ...build, lines, fit: build.fit && fitAfter(build.fit, replaced, by) }
}

function fitAfter(fit: FitPlan, replaced: Line, by: Line): FitPlan {
  const joint = (one: JointPlan): JointPlan =>
    one.lineId !== replaced.id
      ? one
      : {
          ...one,
          lineId: by.id,
          lengthMm: measureOf(by, 'lengthMm') ?? null,
          thread: textOf(by, 'thread') ?? one.thread,
          head: textOf(by, 'head') ?? one.head,
          material: textOf(by, 'material') ?? one.material,
        }
  // How high another board is, its own properties say: what was typed was of the one before.
  const layer = (one: Layer): Layer =>
    one.lineId !== replaced.id
      ? one
      : one.kind === 'plate'
        ? { ...one, lineId: by.id }
        : { ...one, lineId: by.id, name: by.name, heightMm: null, widthMm: null, lengthMm: null }
  const end = (word: string) => (word === replaced.id ? by.id : word === replaced.name ? by.name : word)
  const wire = (one: WirePlan): WirePlan =>
    end(one.from) === one.from && end(one.to) === one.to ? one : { ...one, from: end(one.from), to: end(one.to) }
  const joints = changed(fit.joints, joint)
  const layers = fit.stack ? changed(fit.stack.layers, layer) : null
  const wires = changed(fit.wires, wire)
  if (joints === fit.joints && wires === fit.wires && (!fit.stack || layers === fit.stack.layers)) return fit
  return { ...fit, joints, wires, stack: fit.stack && { ...fit.stack, layers: layers! } }
}

/** What pointed to lines that are deleted points nowhere: feeds are asked about again, joints and layers have no line. */
export function clearReferences(build: Build, gone: ReadonlySet<string>): Build {
  const isGone = (id: string | null) => id !== null && gone.has(id)
  const lines = changed(build.lines, line => (line.feed && gone.has(line.feed.from) ? { ...line, feed: null } : line))
  const { fit, shave } = build
  const joints = fit ? changed(fit.joints, joint => (isGone(joint.lineId) ? { ...joint, lineId: null } : joint)) : []
  const layers = fit?.stack
    ? changed(fit.stack.layers, layer => (isGone(layer.lineId) ? { ...layer, lineId: null } : layer))
    : []
  const nextFit =
    fit && (joints !== fit.joints || (fit.stack && layers !== fit.stack.layers))
      ? { ...fit, joints, stack: fit.stack && { ...fit.stack, layers } }
      : fit
  const shavings = shave
    ? changed(shave.shavings, one =>
        one.state !== 'done' && (isGone(one.lineId) || isGone(one.candidateId))
          ? {
              ...one,
              lineId: isGone(one.lineId) ? null : one.lineId,
              candidateId: isGone(one.candidateId) ? null : one.candidateId,
            }
          : one,
      )
    : []
  return { ...build, lines, fit: nextFit, shave: shave && shavings !== shave.shavings ? { ...shave, shavings } : shave }
}

/** The same list where nothing in it changed. */
function changed<T>(items: readonly T[], to: (item: T) => T): readonly T[] {
  let any = false
  const next = items.map(item => {
    const after = to(item)
    if (after !== item) any = true
    return after
  })
  return any ? next : items
}
