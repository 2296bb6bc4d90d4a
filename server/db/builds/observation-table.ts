import type { ItemChange, KeptPatch } from '../../../core/changes/commands'
import type { Build, Observation } from '../../../core/model/ledger'
import type { Db } from '../open-database'
import { isPutAmong } from './line-table'

/** Weighings of several lines together. */
export function observationTable(db: Db) {
  const sql = {
    all: db.prepare('SELECT observation FROM observations WHERE build_id = :id ORDER BY position').pluck(),
    removeAll: db.prepare('DELETE FROM observations WHERE build_id = :buildId'),
    put: db.prepare(`
      INSERT INTO observations (build_id, id, position, state, value_g, observation)
      VALUES (:buildId, :id, :position, :state, :valueG, :observation)
      ON CONFLICT (build_id, id) DO UPDATE
      SET position = excluded.position, state = excluded.state, value_g = excluded.value_g, observation = excluded.observation`),
    place: db.prepare('UPDATE observations SET position = :position WHERE build_id = :buildId AND id = :id'),
    remove: db.prepare('DELETE FROM observations WHERE build_id = :buildId AND id = :id'),
  }
  function put(buildId: string, observation: Observation, position: number) {
    const { id, state, valueG } = observation
    sql.put.run({ buildId, id, position, state, valueG, observation: JSON.stringify(observation) })
  }
  function replace({ id: buildId, observations }: Build) {
    sql.removeAll.run({ buildId })
    observations.forEach((observation, position) => put(buildId, observation, position))
  }
  return {
    load: (id: string) => (sql.all.all({ id }) as string[]).map(text => JSON.parse(text) as Observation),
    replace,
    /** Only the rows of weighings that changed; all of them where a patch holds them as a whole, or they changed places. */
    save(build: Build, patch: KeptPatch, side: 'before' | 'after') {
      const change = patch.lists?.find(one => one.list === 'observations')
      if (!change || change.order) return replace(build)
      const buildId = build.id
      const places = new Map(build.observations.map(({ id }, position) => [id, position]))
      const changes = change.changes as readonly ItemChange<Observation>[]
      for (const one of changes) {
        const { [side]: observation } = one
        if (observation) put(buildId, observation, places.get(observation.id) ?? 0)
        else sql.remove.run({ buildId, id: (one.before ?? one.after)!.id })
      }
      if (changes.some(one => one[side] === null || isPutAmong(one, side, build.observations)))
        build.observations.forEach(({ id }, position) => sql.place.run({ buildId, id, position }))
    },
  }
}
