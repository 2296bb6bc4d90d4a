import type { z } from 'zod'
import type { Kit, Part } from '../../core/parts/drawer'
import type { Fields } from '../../core/slices/contract'
import type { AssemblyTemplate } from '../../core/model/data'
import type { ReferenceMass, Scale, ScaleCheck } from '../../core/mass/scale'
import type { RuleCard } from '../../core/limits/rules'
import { assemblyTemplateSchema } from '../../core/slices/assembly'
import { kitSchema, partSchema } from '../../shared/schemas/drawer'
import type { KeptKind } from '../../shared/schemas/kept'
import { ownCardSchema, verifiedSchema } from '../../shared/schemas/rule-card'
import {
  checkFieldsSchema,
  referenceFieldsSchema,
  scaleFieldsSchema,
  tareFieldsSchema,
  type Tare,
} from '../../shared/schemas/scales'
import { settingsSchema } from '../../shared/schemas/settings'
import type { Settings } from '../../shared/settings'
import type { Flight } from '../../core/aircraft/flown'
import { findingSchema, flightSchema, renewalSchema, settingsRecordSchema } from '../../shared/schemas/flights'
import type { FlightService } from './flight-service'
import type { Writing } from './build-service'
import type { PartService } from './part-service'
import type { RuleService } from './rule-service'
import type { ScaleService } from './scale-service'
import type { TemplateService } from './template-service'

/** How one kind of thing is kept: its fields without the id, and what reads and writes it inside the transaction. */
export interface KeptHandler {
  readonly schema: z.ZodType
  /** Whether the schema wants the id among the fields. */
  readonly needsId?: true
  readonly nameOf: (fields: Fields) => string
  readonly get: (id: string) => Fields | null
  readonly put: (id: string, fields: Fields, before: Fields | null, writing: Writing) => void
  /** Of which build it is, where what is changed of it is taken back by build. */
  readonly scopeOf?: (fields: Fields) => string
  /** Takes it out; what else must be kept to bring it back is returned. Refuses with a sentence. */
  readonly remove: (id: string) => unknown
  /** Brings back what was kept beside it when it was taken out. */
  readonly restore?: (id: string, rest: unknown, writing: Writing) => void
}

interface Dependencies {
  readonly parts: PartService
  readonly rules: RuleService
  readonly scales: ScaleService
  readonly templates: TemplateService
  readonly flights: FlightService
  readonly settings: { load: () => Settings; save: (settings: Settings) => void }
}

const named = (what: string) => (fields: Fields) => (typeof fields.name === 'string' ? fields.name : what)
const withoutId = <T extends { readonly id: string }>(thing: T | null | undefined): Fields | null => {
  if (!thing) return null
  const { id: _id, ...fields } = thing
  return fields as unknown as Fields
}

const buildOf = (fields: Fields) => String(fields.buildId)

/** What belongs to flights: taken back with them, by build. */
function ofFlights<T extends { readonly id: string }>(
  schema: z.ZodType<T>,
  kept: { one: (id: string) => T | null; put: (thing: T) => void; remove: (id: string) => void },
  nameOf: (fields: Fields) => string,
): KeptHandler {
  return {
    schema,
    needsId: true,
    nameOf,
    scopeOf: buildOf,
    get: id => withoutId(kept.one(id)),
    put: (id, fields) => kept.put({ ...fields, id } as unknown as T),
    remove: id => kept.remove(id),
  }
}

export function keptHandlers({
  parts,
  rules,
  scales,
  templates,
  settings,
  flights,
}: Dependencies): Readonly<Record<KeptKind, KeptHandler>> {
  return {
    part: {
      schema: partSchema,
      needsId: true,
      nameOf: named('part'),
      get: id => withoutId(parts.one(id)),
      put: (id, fields, _before, writing) => parts.keepOne(writing, { ...fields, id } as unknown as Part),
      remove: id => parts.takeOut(id),
      restore: (id, rest) => parts.restoreVersions(id, rest),
    },
    kit: {
      schema: kitSchema,
      needsId: true,
      nameOf: named('kit'),
      get: id => withoutId(parts.kit(id)),
      put: (id, fields) => parts.keepKit({ ...fields, id } as unknown as Kit),
      remove: id => parts.takeOutKit(id),
      restore: (id, rest, writing) => parts.restoreKit(writing, id, rest),
    },
    card: {
      schema: ownCardSchema,
      nameOf: fields => `${String(fields.place)}, ${String(fields.purpose)}`,
      get: id => rules.ownFields(id),
      put: (id, fields, before) =>
        before
          ? rules.change(id, fields as unknown as Omit<RuleCard, 'id' | 'verifiedOn' | 'own'>)
          : rules.add(id, fields as unknown as Omit<RuleCard, 'id' | 'verifiedOn' | 'own'>),
      remove: id => rules.remove(id),
    },
    verified: {
      schema: verifiedSchema,
      nameOf: () => 'card verified',
      get: id => ({ verifiedOn: rules.verifiedOn(id) }),
      put: (id, fields) => rules.verify(id, fields.verifiedOn as string | null),
      remove: id => rules.verify(id, null),
    },
    scale: {
      schema: scaleFieldsSchema,
      nameOf: named('scale'),
      get: id => withoutId(scales.all().scales.find(s => s.id === id)),
      put: (id, fields) => scales.putScale(id, fields as unknown as Omit<Scale, 'id'>),
      remove: id => scales.removeScale(id),
    },
    reference: {
      schema: referenceFieldsSchema,
      nameOf: named('reference mass'),
      get: id => withoutId(scales.all().references.find(r => r.id === id)),
      put: (id, fields) => scales.putReference(id, fields as unknown as Omit<ReferenceMass, 'id'>),
      remove: id => scales.removeReference(id),
    },
    check: {
      schema: checkFieldsSchema.extend({ scaleId: tareFieldsSchema.shape.scaleId }),
      nameOf: () => 'check of a scale',
      get: id => withoutId(scales.all().checks.find(c => c.id === id)),
      put: (id, fields, before) => scales.putCheck({ ...fields, id } as unknown as ScaleCheck, before !== null),
      remove: id => scales.removeCheck(id),
    },
    tare: {
      schema: tareFieldsSchema,
      nameOf: named('tray'),
      get: id => withoutId(scales.all().tares.find(t => t.id === id)),
      put: (id, fields, before) => scales.putTare({ ...fields, id } as unknown as Tare, before !== null),
      remove: id => scales.removeTare(id),
    },
    template: {
      schema: assemblyTemplateSchema.omit({ id: true }),
      nameOf: named('template'),
      get: id => withoutId(templates.all().find(t => t.id === id)),
      put: (id, fields) => templates.put({ ...fields, id } as unknown as AssemblyTemplate),
      remove: id => templates.remove(id),
    },
    flight: {
      schema: flightSchema,
      needsId: true,
      nameOf: fields => `Flight of ${String(fields.flownAt).replace('T', ', ')}`,
      scopeOf: buildOf,
      get: id => withoutId(flights.flight(id)),
      put: (id, fields) => flights.putFlight({ ...fields, id } as unknown as Flight),
      remove: id => flights.removeFlight(id),
    },
    finding: ofFlights(findingSchema, flights.findings, fields => `Finding: ${String(fields.kind)}`),
    renewal: ofFlights(renewalSchema, flights.renewals, () => 'new part fitted'),
    settingsRecord: ofFlights(settingsRecordSchema, flights.settings, named('settings of a craft')),
    settings: {
      schema: settingsSchema,
      nameOf: () => 'settings',
      get: () => settings.load() as unknown as Fields,
      put: (_id, fields) => settings.save(fields as unknown as Settings),
      remove: () => undefined,
    },
  }
}
