import { buildFileFormat, buildFileSchema, buildFileVersion, readBuildFile, type BuildFile } from '../../shared/schemas/build-file'
import { buildSheet } from '../../shared/files/build-sheet'
import { partsCsv } from '../../shared/files/parts-csv'
import type { settingsRepository } from '../db/settings-repository'
import type { BuildService } from './build-service'
import type { RuleService } from './rule-service'
import { DomainProblem } from '../problems'

interface Parts { builds: BuildService, rules: RuleService, settings: ReturnType<typeof settingsRepository>, newId: () => string }

/** The use cases of files: a build out and in, the parts list, the build sheet. */
export function fileService({ builds, rules, settings, newId }: Parts) {
  return {
    /** The build file as text, its fields in the order of the schema: the same build always gives the same text. */
    exportBuild(id: string): string {
      const { build, massVersions, journal } = builds.wholeOf(id)
      const ownCards = rules.cards().filter(card => card.own && build.aim.cardIds.includes(card.id))
      const file: BuildFile = { format: buildFileFormat, version: buildFileVersion, build, ownCards, massVersions, journal }
      return `${JSON.stringify(buildFileSchema.parse(file), null, 2)}\n`
    },
    /** Takes a build file in, all of it or nothing. A build that is there already comes in as a second one beside it. */
    async importBuild(text: string): Promise<string> {
      const read = readBuildFile(text)
      if ('problem' in read) throw new DomainProblem('invalid', read.problem, 'file')
      const { build, ownCards, massVersions, journal } = read.file
      const id = builds.exists(build.id) ? newId() : build.id
      const known = new Set(rules.cards().map(card => card.id))
      await builds.insert({ ...build, id }, massVersions, journal)
      for (const { id: cardId, verifiedOn, own: _own, ...fields } of ownCards) {
        if (known.has(cardId)) continue
        rules.add(cardId, fields)
        if (verifiedOn) rules.verify(cardId, verifiedOn)
      }
      return id
    },
    sheet: (id: string) => buildSheet(builds.read(id).build, rules.cards(), builds.honesty(), settings.load().currency),
    partsList: (id: string) => partsCsv(builds.read(id).build.lines),
  }
}
export type FileService = ReturnType<typeof fileService>
