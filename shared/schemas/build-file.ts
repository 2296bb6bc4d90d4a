import { z } from 'zod'
import { firstVersions, newerThanKnown, saysEveryPart, upcastFile, type Versions } from '../../core/changes/commands'
import type { FlightFinding, Flight, Renewal, SettingsRecord } from '../../core/aircraft/flown'
import type { Build, Mass } from '../../core/model/ledger'
import type { RuleCard } from '../../core/limits/rules'
import { idSchema } from '../../core/text/schemas'
import { buildSchema, massSchema } from './build'
import { findingSchema, flightSchema, mostFlights, mostSettings, renewalSchema, settingsRecordSchema } from './flights'
import { journalRecordSchema, type JournalRecord } from './journal'
import { readJson } from './read-json'
import { ruleCardSchema } from './rule-card'

export const buildFileFormat = 'jolly-gram build'
/**
 * Version 1 knew no weighings on scales, version 2 kept lists whole in its journal, version 3 did not say in which version
 * each part of a build was written, version 4 had no flights, version 5 no marks in its journal; all are still read.
 */
export const buildFileVersion = 6
const firstWithVersions = 4
const firstWithFlights = 5

export const massVersionSchema = z.strictObject({ lineId: idSchema, madeAt: z.iso.datetime(), mass: massSchema })
export interface MassVersion {
  readonly lineId: string
  readonly madeAt: string
  readonly mass: Mass
}

const versionsSchema = z.record(z.string().max(40), z.int().positive()) satisfies z.ZodType<Versions>

/** One build whole: the build, the own rule cards it chose, every version of its grams, and its journal. */
export const buildFileSchema = z.strictObject({
  format: z.literal(buildFileFormat),
  version: z.literal(buildFileVersion),
  versions: versionsSchema,
  build: buildSchema,
  ownCards: z.array(ruleCardSchema).max(50),
  massVersions: z.array(massVersionSchema).max(1_000_000),
  journal: z.array(journalRecordSchema).max(1_000_000),
  flights: z.array(flightSchema).max(mostFlights),
  findings: z.array(findingSchema).max(mostFlights),
  renewals: z.array(renewalSchema).max(mostFlights),
  settings: z.array(settingsRecordSchema).max(mostSettings),
})
export interface BuildFile {
  readonly format: typeof buildFileFormat
  readonly version: typeof buildFileVersion
  /** In which version each part of a build is written. */
  readonly versions: Versions
  readonly build: Build
  readonly ownCards: readonly RuleCard[]
  readonly massVersions: readonly MassVersion[]
  readonly journal: readonly JournalRecord[]
  /** What was flown with it and found on it; flights leave out where they were flown, unless that was asked for. */
  readonly flights: readonly Flight[]
  readonly findings: readonly FlightFinding[]
  readonly renewals: readonly Renewal[]
  /** Configurations; their texts are left out unless that was asked for. */
  readonly settings: readonly SettingsRecord[]
}

/** The first thing wrong with parsed data, as one sentence that names the place. */
export function firstProblem(error: z.ZodError): { field: string; sentence: string } {
  const issue = error.issues[0]
  const field = issue?.path.map(String).join('.') ?? ''
  return {
    field,
    sentence: field ? `${field}: ${issue!.message}` : (issue?.message ?? 'The data do not have the expected shape.'),
  }
}

/** Reads the text of a build file; every refusal is a sentence. */
export function readBuildFile(text: string): { file: BuildFile } | { problem: string } {
  const json = readJson(text)
  if ('problem' in json)
    return {
      problem: json.code === 'not kept' ? json.problem : 'This is not a build file: it cannot be read as JSON.',
    }
  const { data } = json
  const head = headSchema.safeParse(data)
  if (!head.success) return { problem: 'This is not a build file: it does not say so at its start.' }
  const { version } = head.data
  if (version > buildFileVersion) return { problem: newerFile(version) }
  const versions = version < firstWithVersions ? firstVersions : head.data.versions
  if (!versions || !saysEveryPart(versions))
    return { problem: 'The build file does not say in which version its parts are written.' }
  const newer = newerThanKnown(versions)
  if (newer !== null) return { problem: newerPart(newer) }
  const parsed = buildFileSchema.safeParse({
    ...(version < firstWithFlights ? { flights: [], findings: [], renewals: [], settings: [] } : {}),
    ...upcastFile(data as Readonly<Record<string, unknown>>, versions),
    version: buildFileVersion,
    versions,
  })
  return parsed.success
    ? { file: parsed.data }
    : { problem: `The build file has a mistake at ${firstProblem(parsed.error).sentence}` }
}

const headSchema = z.object({
  format: z.literal(buildFileFormat),
  version: z.int().positive(),
  versions: versionsSchema.optional(),
})
const getNewer = 'Update the application, or export the build again in the older version.'
const newerFile = (version: number) =>
  `This build file has version ${version}; this application reads up to version ${buildFileVersion}. ${getNewer}`
const newerPart = (what: string) => `This build file holds ${what}. ${getNewer}`
