import { aim } from './aim'
import { assemble } from './assemble'
import { balance } from './balance'
import { fit } from './fit'
import { fly } from './fly'
import { packs } from './packs'
import { parts } from './parts'
import { record } from './record'
import { shave } from './shave'
import type { Station } from './station'
import { weigh } from './weigh'

export type { Desk, Station, StationStatus } from './station'

/** The stations of a build that can be visited, in the order of work. */
export const stations: readonly Station[] = [aim, parts, fit, weigh, shave, packs, assemble, balance, fly, record]

/** Where a station of a build is. */
export const stationPath = (buildId: string, station: Pick<Station, 'page'>) => `/builds/${buildId}/${station.page}`
