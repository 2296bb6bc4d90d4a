import type { Placing, ReferenceMass, Scale, ScaleCheck } from '../../core/mass/scale'
import type { Tare } from '../../shared/schemas/scales'
import type { Db } from './open-database'

type CheckRow = Omit<ScaleCheck, 'placings'> & { placings: string }

/** SQL of scales, reference masses, checks and named tares. */
export function scalesRepository(db: Db) {
  const sql = {
    scales: db.prepare(`
      SELECT id, name, resolution_g AS resolutionG, capacity_g AS capacityG, repeatability_g AS repeatabilityG,
             check_interval_days AS checkIntervalDays
      FROM scales
      ORDER BY made_at, id`),
    putScale: db.prepare(`
      INSERT INTO scales (id, name, resolution_g, capacity_g, repeatability_g, check_interval_days, made_at)
      VALUES (:id, :name, :resolutionG, :capacityG, :repeatabilityG, :checkIntervalDays, :madeAt)
      ON CONFLICT (id) DO UPDATE
      SET name = excluded.name, resolution_g = excluded.resolution_g, capacity_g = excluded.capacity_g,
          repeatability_g = excluded.repeatability_g, check_interval_days = excluded.check_interval_days`),
    removeScale: db.prepare('DELETE FROM scales WHERE id = :id'),
    references: db.prepare(
      'SELECT id, name, mass_g AS massG, tolerance_g AS toleranceG, coin FROM reference_masses ORDER BY mass_g, made_at, id',
    ),
    putReference: db.prepare(`
      INSERT INTO reference_masses (id, name, mass_g, tolerance_g, coin, made_at)
      VALUES (:id, :name, :massG, :toleranceG, :coin, :madeAt)
      ON CONFLICT (id) DO UPDATE
      SET name = excluded.name, mass_g = excluded.mass_g, tolerance_g = excluded.tolerance_g, coin = excluded.coin`),
    removeReference: db.prepare('DELETE FROM reference_masses WHERE id = :id'),
    checks: db.prepare(
      'SELECT id, scale_id AS scaleId, taken_at AS takenAt, placings FROM scale_checks ORDER BY taken_at, id',
    ),
    addCheck: db.prepare(
      'INSERT INTO scale_checks (id, scale_id, taken_at, placings) VALUES (:id, :scaleId, :takenAt, :placings)',
    ),
    removeCheck: db.prepare('DELETE FROM scale_checks WHERE id = :id'),
    restsOnCheck: db
      .prepare(
        `
      SELECT EXISTS (SELECT 1 FROM mass_versions WHERE json_extract(weighing, '$.checkId') = :id)
          OR EXISTS (SELECT 1 FROM observations WHERE json_extract(observation, '$.checkId') = :id)`,
      )
      .pluck(),
    tares: db.prepare(
      'SELECT id, name, scale_id AS scaleId, display_g AS displayG, taken_at AS takenAt FROM tares ORDER BY name, taken_at DESC',
    ),
    addTare: db.prepare(
      'INSERT INTO tares (id, name, scale_id, display_g, taken_at) VALUES (:id, :name, :scaleId, :displayG, :takenAt)',
    ),
    removeTare: db.prepare('DELETE FROM tares WHERE id = :id'),
  }
  return {
    scales: () => sql.scales.all() as Scale[],
    putScale: (scale: Scale, madeAt: string) => {
      sql.putScale.run({ ...scale, madeAt })
    },
    removeScale: (id: string) => sql.removeScale.run({ id }).changes === 1,
    references: () =>
      (sql.references.all() as (Omit<ReferenceMass, 'coin'> & { coin: number })[]).map((row): ReferenceMass => ({
        ...row,
        coin: row.coin === 1,
      })),
    putReference: (reference: ReferenceMass, madeAt: string) => {
      sql.putReference.run({ ...reference, coin: Number(reference.coin), madeAt })
    },
    removeReference: (id: string) => sql.removeReference.run({ id }).changes === 1,
    checks: () =>
      (sql.checks.all() as CheckRow[]).map((row): ScaleCheck => ({
        ...row,
        placings: JSON.parse(row.placings) as Placing[],
      })),
    addCheck: (check: ScaleCheck) => {
      sql.addCheck.run({ ...check, placings: JSON.stringify(check.placings) })
    },
    removeCheck: (id: string) => sql.removeCheck.run({ id }).changes === 1,
    /** Whether any weighing was made under a check. */
    restsOnCheck: (id: string) => sql.restsOnCheck.get({ id }) === 1,
    tares: () => sql.tares.all() as Tare[],
    addTare: (tare: Tare) => {
      sql.addTare.run(tare)
    },
    removeTare: (id: string) => sql.removeTare.run({ id }).changes === 1,
  }
}
