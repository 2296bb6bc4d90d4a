import { sideOf, touchedFields, type Direction, type KeptPatch } from '../../core/changes/commands'
import type { Build } from '../../core/model/ledger'
import type { MassVersion } from '../../shared/schemas/build-file'
import { headFields, headTable } from './builds/head-table'
import { lineTable, type WrittenState } from './builds/line-table'
import { massVersionTable } from './builds/mass-version-table'
import { observationTable } from './builds/observation-table'
import { partTable } from './builds/part-table'
import { setupTable } from './builds/setup-table'
import { fileSizeTable } from './file-size'
import type { Db } from './open-database'

/** Fields of a build with tables or columns of their own, which SQL brings up to date; all others are rows of parts. */
const withTables: ReadonlySet<string> = new Set([...headFields, 'lines', 'setups', 'neverFlown', 'observations'])

/** Every row of a build as it lies in the database, for one that cannot be read. */
function rawRows(db: Db) {
  const of = (table: string, order = '') => db.prepare(`SELECT * FROM ${table} WHERE build_id = :id ${order}`)
  const sql = {
    builds: db.prepare('SELECT * FROM builds WHERE id = :id'),
    lines: of('lines', 'ORDER BY position'),
    mass_versions: of('mass_versions', 'ORDER BY entry'),
    packs: of('packs'),
    setups: of('setups', 'ORDER BY position'),
    setup_lines: of('setup_lines'),
    never_flown: of('never_flown'),
    observations: of('observations', 'ORDER BY position'),
    reference_crafts: of('reference_crafts'),
    build_parts: of('build_parts'),
    journal: of('journal', 'ORDER BY seq'),
  }
  return (id: string) => Object.fromEntries(Object.entries(sql).map(([table, all]) => [table, all.all({ id })]))
}

/** SQL for builds and all that belongs to them. Call inside a transaction to change several rows. */
export function buildsRepository(db: Db) {
  const heads = headTable(db)
  const versions = massVersionTable(db)
  const lines = lineTable(db, versions)
  const setups = setupTable(db)
  const observations = observationTable(db)
  const parts = partTable(db, withTables)

  return {
    ids: heads.ids,
    headOf: heads.short,
    madeAt: heads.madeAt,
    setArchived: heads.setArchived,
    setRevision: heads.setRevision,
    rawRows: rawRows(db),
    fileBytes: fileSizeTable(db),
    remove: heads.remove,
    versions: versions.all,
    searchLines: lines.search,

    load(id: string): { build: Build; revision: number } | null {
      const head = heads.load(id)
      if (!head) return null
      const known = {
        ...head.fields,
        lines: lines.load(id),
        setups: setups.load(id),
        neverFlown: setups.loadNever(id),
        observations: observations.load(id),
      }
      return { build: { ...known, ...parts.load(known) } as unknown as Build, revision: head.revision }
    },

    /** Puts in a build without its lines and set-ups: those follow through `save`. */
    insert(build: Build, createdAt: string) {
      heads.insert(build, createdAt)
      setups.replaceNever(build)
      observations.replace(build)
      parts.insert(build)
    },

    insertVersions(buildId: string, made: readonly MassVersion[]) {
      made.forEach(({ lineId, madeAt, mass }, i) => versions.add(buildId, lineId, mass, madeAt, i + 1))
    },

    /**
     * Keeps the versions of grams that came with a patch (in the given direction). The revision it makes puts them in order.
     */
    keepVersions(id: string, patch: KeptPatch, direction: Direction, written: WrittenState) {
      lines.keepVersions(id, patch, sideOf(direction), written)
    },

    /** Writes the rows of what a patch changed (in the given direction) of a build that is already `after` it. */
    save(build: Build, patch: KeptPatch, direction: Direction) {
      const side = sideOf(direction)
      const touched = touchedFields(patch)
      lines.save(build, patch, side)
      if (touched.has('setups') || patch.lines.some(change => !change[side])) setups.replace(build)
      lines.removeGone(build.id, patch, side)
      heads.update(build, touched)
      if (touched.has('neverFlown')) setups.replaceNever(build)
      if (touched.has('observations')) observations.save(build, patch, side)
      parts.save(build, touched)
    },
  }
}
export type BuildsRepository = ReturnType<typeof buildsRepository>
