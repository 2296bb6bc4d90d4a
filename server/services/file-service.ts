import { buildFileFormat, buildFileVersion, readBuildFile } from '../../shared/schemas/build-file'
import { linesOfFile } from '../../shared/files/build-file-text'
import { journalProblem, nextStateProblem, presentVersions } from '../../core/changes/commands'
import type { settingsRepository } from '../db/settings-repository'
import type { BuildService } from './build-service'
import type { FlightService } from './flight-service'
import type { RuleService } from './rule-service'
import { DomainProblem } from '../problems'

interface Dependencies {
  builds: BuildService
  rules: RuleService
  flights: FlightService
  settings: ReturnType<typeof settingsRepository>
  newId: () => string
}

/** The use cases of files: a build out and in, the parts list, the build sheet. */
export function fileService({ builds, rules, settings, flights, newId }: Dependencies) {
  /**
   * The build file line by line, its fields in the order of the schema, a line of the ledger, a version and an entry of the
   * journal to each: the same build always gives the same text. What is written is what there was when the first line was
   * asked for; the rest of the work is done as the lines are. Where it was flown, and
   * the texts of its configurations, are left out unless they are asked for.
   */
  function exportLines(id: string, withPrivate = false): Generator<string> {
    const { build, massVersions, journal } = builds.wholeOf(id)
    const flown = flights.keptOf(id)
    const ownCards = rules.cards().filter(card => card.own && build.aim.cardIds.includes(card.id))
    return linesOfFile({
      format: buildFileFormat,
      version: buildFileVersion,
      versions: presentVersions,
      build,
      ownCards,
      massVersions,
      journal,
      flights: flown.flights.map(flight => ({
        ...flight,
        // The log stays on this machine.
        logId: null,
        place: withPrivate ? flight.place : '',
      })),
      findings: flown.findings,
      renewals: flown.renewals,
      settings: flown.settings.map(record => (withPrivate ? record : { ...record, text: '' })),
    })
  }

  return {
    exportLines,
    /** The build file as one text. */
    exportBuild: (id: string, withPrivate = false): string => [...exportLines(id, withPrivate)].join(''),
    /**
     * Takes a build file in with its own cards, all of it or nothing. A build that is there already comes in as a second one
     * beside it. A history that does not lead to the build is refused, unless it is left out (`withoutJournal`).
     */
    async importBuild(text: string, { withoutJournal = false } = {}): Promise<string> {
      const read = readBuildFile(text)
      if ('problem' in read) throw new DomainProblem('invalid', read.problem, 'file')
      const { build, ownCards, massVersions, journal } = read.file
      const forged = withoutJournal
        ? null
        : journalProblem(
            build,
            journal,
            (state, entry, direction) => nextStateProblem(state, entry.patch, direction)?.sentence ?? null,
          )
      if (forged)
        throw new DomainProblem(
          'journal-forged',
          `The history in this file does not lead to its build (${forged}). It can be brought in without its history.`,
          'journal',
        )
      const id = builds.exists(build.id) ? newId() : build.id
      try {
        await builds.insert({ ...build, id }, massVersions, withoutJournal ? [] : journal, () => {
          const known = new Set(rules.cards().map(card => card.id))
          for (const { id: cardId, verifiedOn, own: _own, ...fields } of ownCards) {
            if (known.has(cardId)) continue
            rules.add(cardId, fields)
            if (verifiedOn) rules.verify(cardId, verifiedOn)
          }
          flights.bringIn(id, read.file, newId)
        })
      } catch (error) {
        rules.forget()
        flights.forget()
        throw error
      }
      flights.written()
      return id
    },
    /** The rows of a build that cannot be read, as they lie there. */
    raw: (id: string) => `${JSON.stringify(builds.rawRows(id), null, 2)}\n`,
    /** The build sheet as Markdown; as it was after an entry of the journal where one is named. */
    sheet: (id: string, seq: number | null = null) => builds.sheet(id, settings.load(), 'sheet', seq),
    /** The same as a page by itself. */
    page: (id: string, seq: number | null = null) => builds.sheet(id, settings.load(), 'page', seq),
    partsList: async (id: string) => {
      const { partsCsv } = await import('../../shared/files/parts-csv')
      return partsCsv(builds.read(id).build.lines)
    },
  }
}
export type FileService = ReturnType<typeof fileService>
