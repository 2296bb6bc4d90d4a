import type {
  Build,
  FurtherWeighing,
  Line,
  LoadoutChoice,
  Mass,
  Observation,
  ReferenceCraft,
  Setup,
} from '../../core/model/ledger'
import {
  touchesHead,
  touchesList,
  type ItemChange,
  type LineChange,
  type Patch,
  type PatchedLine,
} from '../../core/changes/commands'
import type { Found } from '../../shared/schemas/api'
import type { MassVersion } from '../../shared/schemas/build-file'
import type { Db } from './open-database'
import { DomainProblem } from '../problems'
import { lineFromRow, lineToRow, massFromRow, massToRow, type LineRow, type MassRow } from './line-rows'

interface HeadRow {
  id: string
  name: string
  craftClass: string
  archived: number
  revision: number
  purpose: string
  purposeKind: 'recreation' | 'other'
  places: string
  cardIds: string
  reserveG: number
  confidence: number
  goalDryG: number | null
  goalMinutes: number | null
  goalPriceCents: number | null
  setupId: string
  packLineId: string | null
  fit: string | null
  flying: string | null
  shave: string | null
  assembly: string | null
}

const selectHead = `
  SELECT id, name, craft_class AS craftClass, archived, revision, purpose, purpose_kind AS purposeKind, places, card_ids AS cardIds,
         reserve_g AS reserveG, confidence, goal_dry_g AS goalDryG, goal_minutes AS goalMinutes, goal_price_cents AS goalPriceCents,
         flies_setup_id AS setupId, flies_pack_line_id AS packLineId, fit, flying, shave, assembly
  FROM builds`

const selectLines = `
  SELECT l.build_id AS buildId, l.id, l.slot, l.name, l.quantity, l.mass_version_id AS massVersionId, l.listing_g AS listingG,
         l.listing_resolution_g AS listingResolutionG, l.state, l.role, l.removable, l.price_each_cents AS priceEachCents,
         l.note, l.tie, l.instead_of AS insteadOf, l.properties, l.part_id AS partId, l.feed, l.edition, l.further, l.pack_so_far AS packSoFar,
         m.evidence, m.value_g AS valueG, m.value_count AS valueCount, m.resolution_g AS resolutionG, m.piece_readings AS pieceReadings,
         m.half_range_g AS halfRangeG, m.own_spread_g AS ownSpreadG, m.basis, m.origin, m.weighing,
         p.label, p.cells, p.chemistry, p.capacity_mah AS capacityMah, p.c_rating AS cRating, p.plug
  FROM lines l
  LEFT JOIN mass_versions m ON m.build_id = l.build_id AND m.id = l.mass_version_id
  LEFT JOIN packs p ON p.build_id = l.build_id AND p.line_id = l.id`

/** Whether a change put something in that does not stand at the end of its list. */
function isPutAmong<T extends { readonly id: string }>(
  change: ItemChange<T>,
  side: 'before' | 'after',
  list: readonly T[],
): boolean {
  const put = change[side]
  return put !== null && change[side === 'after' ? 'before' : 'after'] === null && list.at(-1)?.id !== put.id
}

/** The weighings beside its estimate that a change may have put on a line. */
function furtherPutIn(
  line: Line,
  { before, further }: LineChange,
  side: 'before' | 'after',
): readonly FurtherWeighing[] {
  if (further) return further.changes.flatMap(one => one[side] ?? [])
  return before === null || before.further ? line.further : []
}

function onlyMassDiffers(before: PatchedLine, after: PatchedLine): boolean {
  return (Object.keys(after) as (keyof PatchedLine)[]).every(key => key === 'mass' || before[key] === after[key])
}

/** Versions made here are told after all that came in with a file, in the order of the build’s revisions. */
const afterWhatCameIn = 1_000_000_000

/** SQL for builds, their lines, mass versions, packs, set-ups and loadouts. Call inside a transaction to change several rows. */
export function buildsRepository(db: Db) {
  const sql = {
    shortHead: db.prepare('SELECT name, archived FROM builds WHERE id = :id'),
    setArchived: db.prepare('UPDATE builds SET archived = :archived WHERE id = :id'),
    remove: db.prepare('DELETE FROM builds WHERE id = :id'),
    raw: {
      builds: db.prepare('SELECT * FROM builds WHERE id = :id'),
      lines: db.prepare('SELECT * FROM lines WHERE build_id = :id ORDER BY position'),
      mass_versions: db.prepare('SELECT * FROM mass_versions WHERE build_id = :id ORDER BY entry'),
      packs: db.prepare('SELECT * FROM packs WHERE build_id = :id'),
      setups: db.prepare('SELECT * FROM setups WHERE build_id = :id ORDER BY position'),
      setup_lines: db.prepare('SELECT * FROM setup_lines WHERE build_id = :id'),
      never_flown: db.prepare('SELECT * FROM never_flown WHERE build_id = :id'),
      observations: db.prepare('SELECT * FROM observations WHERE build_id = :id ORDER BY position'),
      reference_crafts: db.prepare('SELECT * FROM reference_crafts WHERE build_id = :id'),
      journal: db.prepare('SELECT * FROM journal WHERE build_id = :id ORDER BY seq'),
    },
    ids: db.prepare('SELECT id FROM builds ORDER BY created_at, id').pluck(),
    head: db.prepare(`${selectHead} WHERE id = :id`),
    lines: db.prepare(`${selectLines} WHERE l.build_id = :id ORDER BY l.position`),
    setups: db.prepare('SELECT id, name FROM setups WHERE build_id = :id ORDER BY position'),
    setupLines: db.prepare(
      'SELECT setup_id AS setupId, line_id AS lineId FROM setup_lines WHERE build_id = :id ORDER BY setup_id, position',
    ),
    never: db.prepare(
      'SELECT setup_id AS setupId, pack_line_id AS packLineId FROM never_flown WHERE build_id = :id ORDER BY position',
    ),
    reference: db.prepare(
      'SELECT mass_g AS massG, spread_g AS spreadG, thrust_g AS thrustG, price_cents AS priceCents, minutes FROM reference_crafts WHERE build_id = :id',
    ),
    versions: db.prepare(`
      SELECT id AS versionId, line_id AS lineId, made_at AS madeAt, evidence, value_g AS valueG, value_count AS valueCount,
             resolution_g AS resolutionG, piece_readings AS pieceReadings, half_range_g AS halfRangeG, own_spread_g AS ownSpreadG, basis, origin, weighing
      FROM mass_versions
      WHERE build_id = :id
      ORDER BY entry, made_at, id`),
    insertHead: db.prepare(`
      INSERT INTO builds (id, name, craft_class, archived, revision, created_at, purpose, purpose_kind, places, card_ids, reserve_g, confidence,
                          goal_dry_g, goal_minutes, goal_price_cents, flies_setup_id, flies_pack_line_id, fit, flying, shave, assembly)
      VALUES (:id, :name, :craftClass, :archived, :revision, :createdAt, :purpose, :purposeKind, :places, :cardIds, :reserveG, :confidence,
              :goalDryG, :goalMinutes, :goalPriceCents, :setupId, :packLineId, :fit, :flying, :shave, :assembly)`),
    updateHead: db.prepare(`
      UPDATE builds
      SET name = :name, craft_class = :craftClass, archived = :archived, purpose = :purpose, purpose_kind = :purposeKind, places = :places,
          card_ids = :cardIds, reserve_g = :reserveG, confidence = :confidence, goal_dry_g = :goalDryG, goal_minutes = :goalMinutes,
          goal_price_cents = :goalPriceCents, flies_setup_id = :setupId, flies_pack_line_id = :packLineId, fit = :fit, flying = :flying, shave = :shave, assembly = :assembly
      WHERE id = :id`),
    version: db.prepare(`
      SELECT id AS versionId, evidence, value_g AS valueG, value_count AS valueCount, resolution_g AS resolutionG, piece_readings AS pieceReadings,
             half_range_g AS halfRangeG, own_spread_g AS ownSpreadG, basis, origin, weighing
      FROM mass_versions
      WHERE build_id = :buildId AND id = :versionId`),
    revision: db.prepare('UPDATE builds SET revision = ? WHERE id = ?'),
    insertVersion: db.prepare(`
      INSERT OR IGNORE INTO mass_versions (build_id, id, line_id, made_at, evidence, value_g, value_count, resolution_g, piece_readings,
                                           half_range_g, own_spread_g, basis, origin, weighing, entry)
      VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`),
    putLine: db.prepare(`
      INSERT INTO lines (build_id, id, position, slot, name, quantity, mass_version_id, listing_g, listing_resolution_g, state, role,
                         removable, price_each_cents, note, tie, instead_of, properties, part_id, feed, edition, further, pack_so_far)
      VALUES (:buildId, :id, :position, :slot, :name, :quantity, :massVersionId, :listingG, :listingResolutionG, :state, :role,
              :removable, :priceEachCents, :note, :tie, :insteadOf, :properties, :partId, :feed, :edition, :further, :packSoFar)
      ON CONFLICT (build_id, id) DO UPDATE
      SET slot = excluded.slot, name = excluded.name, quantity = excluded.quantity, mass_version_id = excluded.mass_version_id,
          listing_g = excluded.listing_g, listing_resolution_g = excluded.listing_resolution_g, state = excluded.state, role = excluded.role,
          removable = excluded.removable, price_each_cents = excluded.price_each_cents, note = excluded.note, tie = excluded.tie,
          instead_of = excluded.instead_of, properties = excluded.properties, part_id = excluded.part_id, feed = excluded.feed,
          edition = excluded.edition, further = excluded.further, pack_so_far = excluded.pack_so_far`),
    pointToVersion: db.prepare('UPDATE lines SET mass_version_id = ? WHERE build_id = ? AND id = ?'),
    deleteLine: db.prepare('DELETE FROM lines WHERE build_id = :buildId AND id = :id'),
    position: db.prepare('UPDATE lines SET position = :position WHERE build_id = :buildId AND id = :id'),
    lastPosition: db.prepare('SELECT coalesce(max(position), -1) FROM lines WHERE build_id = :buildId').pluck(),
    deletePack: db.prepare('DELETE FROM packs WHERE build_id = :buildId AND line_id = :lineId'),
    putPack: db.prepare(`
      INSERT INTO packs (build_id, line_id, label, cells, chemistry, capacity_mah, c_rating, plug)
      VALUES (:buildId, :lineId, :label, :cells, :chemistry, :capacityMah, :cRating, :plug)
      ON CONFLICT (build_id, line_id) DO UPDATE
      SET label = excluded.label, cells = excluded.cells, chemistry = excluded.chemistry, capacity_mah = excluded.capacity_mah,
          c_rating = excluded.c_rating, plug = excluded.plug`),
    deleteSetups: db.prepare('DELETE FROM setups WHERE build_id = :buildId'),
    insertSetup: db.prepare(
      'INSERT INTO setups (build_id, id, position, name) VALUES (:buildId, :id, :position, :name)',
    ),
    insertSetupLine: db.prepare(
      'INSERT INTO setup_lines (build_id, setup_id, line_id, position) VALUES (:buildId, :setupId, :lineId, :position)',
    ),
    deleteNever: db.prepare('DELETE FROM never_flown WHERE build_id = :buildId'),
    insertNever: db.prepare(
      'INSERT INTO never_flown (build_id, position, setup_id, pack_line_id) VALUES (:buildId, :position, :setupId, :packLineId)',
    ),
    observations: db.prepare('SELECT observation FROM observations WHERE build_id = :id ORDER BY position').pluck(),
    deleteObservations: db.prepare('DELETE FROM observations WHERE build_id = :buildId'),
    putObservation: db.prepare(`
      INSERT INTO observations (build_id, id, position, state, value_g, observation)
      VALUES (:buildId, :id, :position, :state, :valueG, :observation)
      ON CONFLICT (build_id, id) DO UPDATE
      SET position = excluded.position, state = excluded.state, value_g = excluded.value_g, observation = excluded.observation`),
    placeObservation: db.prepare('UPDATE observations SET position = :position WHERE build_id = :buildId AND id = :id'),
    deleteObservation: db.prepare('DELETE FROM observations WHERE build_id = :buildId AND id = :id'),
    deleteReference: db.prepare('DELETE FROM reference_crafts WHERE build_id = :buildId'),
    insertReference: db.prepare(`
      INSERT INTO reference_crafts (build_id, mass_g, spread_g, thrust_g, price_cents, minutes)
      VALUES (:buildId, :massG, :spreadG, :thrustG, :priceCents, :minutes)`),
    searchLines: db.prepare(`
      SELECT l.build_id AS buildId, b.name AS buildName, l.id AS lineId, CASE WHEN p.label IS NULL THEN l.name ELSE p.label || ' · ' || l.name END AS name,
             l.slot, l.state
      FROM lines l
      JOIN builds b ON b.id = l.build_id
      LEFT JOIN packs p ON p.build_id = l.build_id AND p.line_id = l.id
      WHERE l.name LIKE :pattern ESCAPE '\\' OR l.slot LIKE :pattern ESCAPE '\\' OR p.label LIKE :pattern ESCAPE '\\' OR l.note LIKE :pattern ESCAPE '\\'
      ORDER BY b.archived, b.name, l.position
      LIMIT 40`),
  }

  function headParameters(build: Build) {
    const { aim } = build
    return {
      id: build.id,
      name: build.name,
      craftClass: build.craftClass,
      archived: Number(build.archived),
      purpose: aim.purpose,
      purposeKind: aim.purposeKind,
      places: JSON.stringify(aim.places),
      cardIds: JSON.stringify(aim.cardIds),
      reserveG: aim.reserveG,
      confidence: aim.confidence,
      goalDryG: aim.goalDryG,
      goalMinutes: aim.goalMinutes,
      goalPriceCents: aim.goalPriceCents,
      setupId: build.flies.setupId,
      packLineId: build.flies.packLineId,
      fit: build.fit === null ? null : JSON.stringify(build.fit),
      flying: build.flying === null ? null : JSON.stringify(build.flying),
      shave: build.shave === null ? null : JSON.stringify(build.shave),
      assembly: build.assembly === null ? null : JSON.stringify(build.assembly),
    }
  }

  /** A version is written once: going back to one that is there is fine, giving its id other grams is not. */
  function addVersion(buildId: string, lineId: string, mass: Mass, madeAt: string, entry: number) {
    const row = massToRow(buildId, lineId, mass, madeAt)
    const put = sql.insertVersion.run(
      buildId,
      row.versionId,
      lineId,
      madeAt,
      row.evidence,
      row.valueG,
      row.valueCount,
      row.resolutionG,
      row.pieceReadings,
      row.halfRangeG,
      row.ownSpreadG,
      row.basis,
      row.origin,
      row.weighing,
      entry,
    )
    if (put.changes === 1) return
    const { madeAt: _madeAt, ...kept } = massToRow(
      buildId,
      lineId,
      massFromRow(sql.version.get({ buildId, versionId: mass.versionId }) as MassRow)!,
      madeAt,
    )
    const { madeAt: _again, ...wanted } = massToRow(buildId, lineId, mass, madeAt)
    for (const key of Object.keys(wanted) as (keyof typeof wanted)[]) {
      if (kept[key] !== wanted[key])
        throw new DomainProblem(
          'refused',
          'These grams carry the id of an earlier version of other grams. Nothing was written.',
          'versionId',
        )
    }
  }

  /** Writes a line; of one that was there, only what differs from before. */
  function putLine(
    buildId: string,
    line: Line,
    change: LineChange,
    side: 'before' | 'after',
    position: number,
    madeAt: string,
    revision: number,
  ) {
    const before = change[side === 'after' ? 'before' : 'after']
    if (line.mass && line.mass !== before?.mass)
      addVersion(buildId, line.id, line.mass, madeAt, afterWhatCameIn + revision)
    for (const { mass } of furtherPutIn(line, change, side))
      addVersion(buildId, line.id, mass, madeAt, afterWhatCameIn + revision)
    if (before && !change.further && onlyMassDiffers(before, change[side]!)) {
      sql.pointToVersion.run(line.mass?.versionId ?? null, buildId, line.id)
      return
    }
    sql.putLine.run(lineToRow(buildId, line, position))
    if (line.pack) sql.putPack.run({ buildId, lineId: line.id, ...line.pack })
    else if (line.slot === 'pack') sql.deletePack.run({ buildId, lineId: line.id })
  }

  function replaceSetups(build: Build) {
    sql.deleteSetups.run({ buildId: build.id })
    build.setups.forEach((setup, position) => {
      sql.insertSetup.run({ buildId: build.id, id: setup.id, position, name: setup.name })
      setup.lineIds.forEach((lineId, at) =>
        sql.insertSetupLine.run({ buildId: build.id, setupId: setup.id, lineId, position: at }),
      )
    })
  }

  function replaceNever(build: Build) {
    sql.deleteNever.run({ buildId: build.id })
    build.neverFlown.forEach((choice, position) => sql.insertNever.run({ buildId: build.id, position, ...choice }))
  }

  function replaceObservations(build: Build) {
    sql.deleteObservations.run({ buildId: build.id })
    build.observations.forEach((observation, position) => putObservation(build.id, observation, position))
  }

  function putObservation(buildId: string, observation: Observation, position: number) {
    const { id, state, valueG } = observation
    sql.putObservation.run({ buildId, id, position, state, valueG, observation: JSON.stringify(observation) })
  }

  /** Only the rows of weighings that changed; all of them where a patch holds them as a whole, or they changed places. */
  function saveObservations(build: Build, patch: Patch, side: 'before' | 'after') {
    const change = patch.lists?.find(one => one.list === 'observations')
    if (!change || change.order) return replaceObservations(build)
    const buildId = build.id
    for (const one of change.changes) {
      const observation = one[side] as Observation | null
      const { id } = (observation ?? one.before ?? one.after) as Observation
      if (!observation) sql.deleteObservation.run({ buildId, id })
      else
        putObservation(
          buildId,
          observation,
          build.observations.findIndex(other => other.id === id),
        )
    }
    const among = change.changes.some(one => isPutAmong(one as ItemChange<Observation>, side, build.observations))
    const gone = change.changes.some(one => one[side] === null)
    if (among || gone)
      build.observations.forEach(({ id }, position) => sql.placeObservation.run({ buildId, id, position }))
  }

  function replaceReference(build: Build) {
    sql.deleteReference.run({ buildId: build.id })
    if (build.reference) sql.insertReference.run({ buildId: build.id, ...build.reference })
  }

  return {
    ids: () => sql.ids.all() as string[],
    /** What can be said of a build that cannot be read. */
    headOf: (id: string) => (sql.shortHead.get({ id }) as { name: string; archived: number } | undefined) ?? null,
    setArchived: (id: string, archived: boolean) => {
      sql.setArchived.run({ id, archived: Number(archived) })
    },
    /** Every row of a build as it lies in the database, for one that cannot be read. */
    rawRows: (id: string) =>
      Object.fromEntries(Object.entries(sql.raw).map(([table, all]) => [table, all.all({ id })])),
    remove: (id: string) => sql.remove.run({ id }).changes === 1,

    load(id: string): { build: Build; revision: number } | null {
      const head = sql.head.get({ id }) as HeadRow | undefined
      if (!head) return null
      const linesOfSetup = new Map<string, string[]>()
      for (const { setupId, lineId } of sql.setupLines.all({ id }) as { setupId: string; lineId: string }[]) {
        linesOfSetup.set(setupId, [...(linesOfSetup.get(setupId) ?? []), lineId])
      }
      const build: Build = {
        id: head.id,
        name: head.name,
        craftClass: head.craftClass,
        archived: head.archived === 1,
        reference: (sql.reference.get({ id }) as ReferenceCraft | undefined) ?? null,
        aim: {
          purpose: head.purpose,
          purposeKind: head.purposeKind,
          places: JSON.parse(head.places),
          cardIds: JSON.parse(head.cardIds),
          reserveG: head.reserveG,
          confidence: head.confidence,
          goalDryG: head.goalDryG,
          goalMinutes: head.goalMinutes,
          goalPriceCents: head.goalPriceCents,
        },
        lines: (sql.lines.all({ id }) as LineRow[]).map(lineFromRow),
        setups: (sql.setups.all({ id }) as Pick<Setup, 'id' | 'name'>[]).map(s => ({
          ...s,
          lineIds: linesOfSetup.get(s.id) ?? [],
        })),
        flies: { setupId: head.setupId, packLineId: head.packLineId },
        neverFlown: sql.never.all({ id }) as LoadoutChoice[],
        observations: (sql.observations.all({ id }) as string[]).map(text => JSON.parse(text) as Observation),
        fit: head.fit === null ? null : (JSON.parse(head.fit) as Build['fit']),
        flying: head.flying === null ? null : (JSON.parse(head.flying) as Build['flying']),
        shave: head.shave === null ? null : (JSON.parse(head.shave) as Build['shave']),
        assembly: head.assembly === null ? null : (JSON.parse(head.assembly) as Build['assembly']),
      }
      return { build, revision: head.revision }
    },

    /** Puts in a build without its lines and set-ups: those follow through `save`. */
    insert(build: Build, createdAt: string) {
      sql.insertHead.run({ ...headParameters(build), revision: 1, createdAt })
      replaceNever(build)
      replaceReference(build)
      replaceObservations(build)
    },

    insertVersions(buildId: string, versions: readonly MassVersion[]) {
      versions.forEach(({ lineId, madeAt, mass }, i) => addVersion(buildId, lineId, mass, madeAt, i + 1))
    },

    versions: (id: string): MassVersion[] =>
      (sql.versions.all({ id }) as (MassRow & { lineId: string; madeAt: string })[]).map(row => ({
        lineId: row.lineId,
        madeAt: row.madeAt,
        mass: massFromRow(row) as Mass,
      })),

    /** Writes what a patch changed (in the given direction) of a build that is already `after` it, and its new revision. */
    save(build: Build, patch: Patch, direction: 'forwards' | 'backwards', revision: number, madeAt: string) {
      const side = direction === 'forwards' ? 'after' : 'before'
      const buildId = build.id
      const lines = new Map(build.lines.map(line => [line.id, line]))
      let position = patch.lines.some(c => c[side] && !c[side === 'after' ? 'before' : 'after'])
        ? (sql.lastPosition.get({ buildId }) as number)
        : 0
      for (const change of patch.lines) {
        const id = change[side]?.id
        const line = id === undefined ? undefined : lines.get(id)
        if (line) putLine(buildId, line, change, side, ++position, madeAt, revision)
      }
      if (patch.order || patch.lines.some(c => isPutAmong(c, side, build.lines)))
        build.lines.forEach((line, i) => sql.position.run({ buildId, id: line.id, position: i }))
      if (touchesList(patch, 'setups') || patch.lines.some(c => !c[side])) replaceSetups(build)
      for (const change of patch.lines) {
        if (!change[side]) sql.deleteLine.run({ buildId, id: (change.before ?? change.after)!.id })
      }
      if (touchesHead(patch)) sql.updateHead.run(headParameters(build))
      if (touchesList(patch, 'neverFlown')) replaceNever(build)
      if (patch.head && 'reference' in patch.head[side]) replaceReference(build)
      if (touchesList(patch, 'observations')) saveObservations(build, patch, side)
      sql.revision.run(revision, buildId)
    },

    searchLines: (text: string) =>
      sql.searchLines.all({ pattern: `%${text.replace(/[\\%_]/g, c => `\\${c}`)}%` }) as Found[],
  }
}
export type BuildsRepository = ReturnType<typeof buildsRepository>
