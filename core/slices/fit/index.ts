import { z } from 'zod'
import { blankFit, type FitPlan, type JointPlan, type Layer, type SetAside, type WirePlan } from '../../model/data'
import type { Line } from '../../model/ledger'
import { measureOf, textOf } from '../../model/properties'
import { changesOf, itemChanges, joined, picked, told, type BuildSlice } from '../contract'
import {
  consideredSchema,
  fitSchema,
  fitShape,
  jointSchema,
  mostConsidered,
  mostJoints,
  mostSetAside,
  mostWires,
  setAsideSchema,
  wirePlanSchema,
} from './schema'

export * from './schema'

declare module '../../model/data/build' {
  interface Build {
    /** How the parts go together: stack, joints, leads; null while nothing has been said. */
    readonly fit: FitPlan | null
  }
}

interface SetFit {
  readonly type: 'fit.set'
  readonly fields: Partial<FitPlan>
}

const byId = ({ id }: { readonly id: string }) => id

/** How the parts go together: stack, joints, leads. */
export const fitSlice: BuildSlice<'fit', SetFit> = {
  name: 'fit',
  title: 'Fit',
  version: 2,
  upcasts: [{ items: { 'fit.joints': jointFromFirstVersion } }],
  fields: {
    fit: {
      kind: 'part',
      schema: fitSchema.nullable(),
      blank: () => null,
      empty: blankFit,
      shape: fitShape,
      lists: {
        joints: { item: jointSchema, keyOf: byId, most: mostJoints },
        wires: { item: wirePlanSchema, keyOf: byId, most: mostWires },
        considered: { item: consideredSchema, keyOf: byId, most: mostConsidered },
        setAside: { item: setAsideSchema, keyOf: ({ finding }: SetAside) => finding, most: mostSetAside },
      },
    },
  },
  commands: {
    'fit.set': {
      shape: { fields: z.preprocess(asAskedNow, z.strictObject(fitShape).partial()) },
      apply: (build, { fields }) => ({ ...build, fit: { ...(build.fit ?? blankFit), ...fields } }),
      describe: ({ fields }, before) => told(`Fit: ${fitChanges(before.fit ?? blankFit, fields)}`),
      asIn: (command, build) => ({ ...command, fields: picked(build.fit ?? blankFit, command.fields) }),
    },
  },
  references: [
    {
      to: 'lines',
      at: ['fit', 'joints'],
      ids: ({ lineId }: JointPlan) => [lineId],
      follows: jointOf,
      loses: (joint: JointPlan): JointPlan => ({ ...joint, lineId: null }),
    },
    {
      to: 'lines',
      at: ['fit', 'stack', 'layers'],
      ids: ({ lineId }: Layer) => [lineId],
      follows: layerOf,
      loses: (layer: Layer): Layer => ({ ...layer, lineId: null }),
    },
    // The ends of a lead are lines by id, or anything else by its name.
    {
      to: 'lines',
      at: ['fit', 'wires'],
      ids: ({ from, to }: WirePlan) => [from, to],
      alsoByName: true,
      follows: (wire: WirePlan, replaced, by) =>
        withEnds(wire, end => (end === replaced.id ? by.id : end === replaced.name ? by.name : end)),
      loses: (wire: WirePlan, gone) => withEnds(wire, end => gone.get(end)?.name ?? end),
    },
  ],
}

type Raw = Readonly<Record<string, unknown>>

/** What a joint holds was once read out of its name. */
function jointFromFirstVersion(joint: Raw): Raw {
  if (Object.hasOwn(joint, 'holds')) return joint
  const { id, name, ...rest } = joint
  return { id, name, holds: heldByName(String(name), rest.beyond), ...rest }
}
function heldByName(name: string, beyond: unknown): JointPlan['holds'] {
  if (/motor/i.test(name) || beyond === 'windings') return 'motors'
  return /board|stack/i.test(name) ? 'boards' : null
}
/** An edit may have waited in a browser since an earlier version wrote it. */
function asAskedNow(fields: unknown): unknown {
  const joints = typeof fields === 'object' && fields !== null ? (fields as Raw).joints : undefined
  if (!Array.isArray(joints)) return fields
  const isJoint = (joint: unknown): joint is Raw => typeof joint === 'object' && joint !== null
  return { ...(fields as Raw), joints: joints.map(joint => (isJoint(joint) ? jointFromFirstVersion(joint) : joint)) }
}

/** A joint holds with the screws that took the place of the ones before. */
function jointOf(joint: JointPlan, _replaced: Line, by: Line): JointPlan {
  return {
    ...joint,
    lineId: by.id,
    lengthMm: measureOf(by, 'lengthMm') ?? null,
    thread: textOf(by, 'thread') ?? joint.thread,
    head: textOf(by, 'head') ?? joint.head,
    material: textOf(by, 'material') ?? joint.material,
  }
}

/** How high another board is, its own properties say: what was typed was of the one before. */
function layerOf(layer: Layer, _replaced: Line, by: Line): Layer {
  return layer.kind === 'plate'
    ? { ...layer, lineId: by.id }
    : { ...layer, lineId: by.id, name: by.name, heightMm: null, widthMm: null, lengthMm: null }
}

const withEnds = (wire: WirePlan, become: (end: string) => string): WirePlan => ({
  ...wire,
  from: become(wire.from),
  to: become(wire.to),
})

/** What became of the parts of Fit, by what they are called. */
function fitChanges(was: FitPlan, fields: Partial<FitPlan>): string {
  const setAside = fields.setAside
  const changes = [
    ...(fields.stack === undefined ? [] : itemChanges(was.stack?.layers ?? [], fields.stack?.layers ?? [])),
    ...(fields.joints === undefined ? [] : itemChanges(was.joints, fields.joints)),
    ...(fields.wires === undefined ? [] : itemChanges(was.wires, fields.wires)),
    ...(fields.mounting === undefined ? [] : changesOf(was.mounting, fields.mounting)),
    ...(fields.considered === undefined ? [] : itemChanges(was.considered, fields.considered)),
    ...(setAside === undefined
      ? []
      : [setAside.length > was.setAside.length ? `lived with: ${setAside.at(-1)!.why}` : 'a finding stands again']),
  ]
  return changes.length > 0 ? joined(changes) : 'order changed'
}
