import { randomUUID } from 'node:crypto'
import { statSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { buildsRepository } from '../db/builds-repository'
import { flightsRepository } from '../db/flights-repository'
import { groupCommit } from '../db/group-commit'
import { identityRepository } from '../db/identity-repository'
import { journalRepository } from '../db/journal-repository'
import { keptJournalRepository } from '../db/kept-journal-repository'
import { openDatabase, type Db, type Migration } from '../db/open-database'
import { benchScale } from '../devices/bench-scale'
import { partsRepository } from '../db/parts-repository'
import { picturesRepository } from '../db/pictures-repository'
import { rulesRepository } from '../db/rules-repository'
import { scalesRepository } from '../db/scales-repository'
import { secretsRepository } from '../db/secrets-repository'
import { sessionsRepository } from '../db/sessions-repository'
import { settingsRepository } from '../db/settings-repository'
import { templatesRepository } from '../db/templates-repository'
import { archiveService } from './archive-service'
import { buildService } from './build-service'
import { BuildCache } from './builds/build-cache'
import { fileService } from './file-service'
import { flightService } from './flight-service'
import { keepingService } from './keeping-service'
import { keptHandlers } from './kept-kinds'
import { logService } from './log-service'
import { newBuildService } from './new-build-service'
import { outcomeService } from './outcome-service'
import { partService } from './part-service'
import { photoService } from './photo-service'
import { pictureService } from './picture-service'
import { ruleService } from './rule-service'
import { inThisThread, type ReportRunner } from './report-runner'
import { scaleService } from './scale-service'
import { sessionService } from './session-service'
import { templateService } from './template-service'

const inodeOf = (path: string): number | null => statSync(path, { throwIfNoEntry: false })?.ino ?? null

/** Opens a database and wires repositories and services on it. Tests make their own; the server has one. */
export function makeApplication(
  databasePath: string,
  migrations: readonly Migration[],
  now: () => string = () => new Date().toISOString(),
  reports: ReportRunner = inThisThread,
) {
  const db: Db = openDatabase(databasePath, migrations)
  const inode = inodeOf(databasePath)
  const rules = ruleService(rulesRepository(db))
  const settings = settingsRepository(db)
  const scales = scaleService(scalesRepository(db), now)
  const bench = benchScale(() => settings.load().benchScale || process.env.JOLLY_GRAM_SCALE || '')
  const newId = () => randomUUID()
  const parts = partsRepository(db)
  const buildRows = buildsRepository(db)
  const journal = journalRepository(db)
  const cache = new BuildCache(buildRows, journal)
  /** A commit that was lost takes what was held with it. */
  const flights = flightService({
    flights: flightsRepository(db),
    nameOf: id => buildRows.headOf(id)?.name ?? null,
  })
  const forget = () => {
    cache.forget()
    rules.forget()
    flights.forget()
  }
  const writer = groupCommit(db, forget, () => inodeOf(databasePath) === inode)
  const builds = buildService({ builds: buildRows, journal, parts, rules, reports, cache, writer, now, newId, flights })
  const drawer = partService({ parts, builds, writer, now })
  const outcomes = outcomeService({ builds, newId })
  const templates = templateService(templatesRepository(db))
  const sessions = sessionService(sessionsRepository(db), now, newId)
  const keeping = keepingService({
    journal: keptJournalRepository(db),
    handlers: keptHandlers({ parts: drawer, rules, scales, templates, settings, flights }),
    async write(work) {
      const answer = await builds.changeAnywhere(writing => {
        try {
          return work(writing)
        } catch (error) {
          rules.forget()
          flights.forgetChanged()
          throw error
        }
      })
      flights.written()
      return answer
    },
    now,
  })
  return {
    builds,
    parts: drawer,
    keeping,
    flights,
    sessions,
    rules,
    settings,
    scales,
    secrets: secretsRepository(db),
    newId,
    benchScale: bench,
    templates,
    archive: archiveService({ folder: dirname(databasePath), db, migrations, now }),
    identity: identityRepository(db).get,
    logs: logService(join(dirname(databasePath), 'logs'), newId),
    photos: photoService(join(dirname(databasePath), 'photos'), newId),
    pictures: pictureService({
      photos: photoService(join(dirname(databasePath), 'pictures'), newId),
      isNamed: picturesRepository(db).isNamed,
    }),
    files: fileService({ builds, rules, settings, flights, newId }),
    outcomes,
    newBuilds: newBuildService({ builds, settings, outcomes, newId, now }),
    /** Reads something, to know that it can be read. */
    look() {
      db.prepare('SELECT count(*) FROM migrations').get()
    },
    close() {
      bench.close()
      reports.close()
      db.close()
    },
  }
}
export type Application = ReturnType<typeof makeApplication>
