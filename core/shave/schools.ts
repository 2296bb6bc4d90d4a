import { typicalMass } from '../catalogue'
import { fixingsSchedule, planWires } from '../fit'
import type { Build } from '../ledger'
import type { LineEstimates } from '../loadout'
import { connectorNamed, connectors } from '../power'
import { propertiesOfLine, textOf } from '../properties'
import { wiresG } from '../workings'

/** One way of doing a thing: grams for the whole build against the present way, and what goes with it. */
export interface SchoolWay { readonly name: string, readonly againstG: readonly [number, number], readonly now: boolean, readonly words: string }
/** A thing practitioners do in two ways or more, with what each comes to on this build. */
export interface School { readonly question: string, readonly ways: readonly SchoolWay[] }

const one = (grams: number): readonly [number, number] => [grams, grams]

/** The comparisons there are data for. Nothing is recommended: each way has its price. */
export function schoolsOf(build: Build, estimates: LineEstimates): School[] {
  return [screwMaterials(build), slack(build), plugs(build), boards(build, estimates)].filter(school => school !== null && school.ways.length > 1) as School[]
}

function screwMaterials(build: Build): School | null {
  const rows = fixingsSchedule(build.fit?.joints ?? []).rows.filter(row => row.massG !== null)
  if (rows.length === 0) return null
  const names = [...new Set(rows.flatMap(row => row.materials.map(m => m.material)))]
  const now = [...new Set(rows.map(row => row.joint.material))].join(' and ')
  const ways = names.map((name): SchoolWay => ({
    name, now: false, againstG: one(-rows.reduce((sum, row) => sum + (row.materials.find(m => m.material === name)?.savesG ?? 0), 0)),
    words: /titanium/.test(name) ? 'strong enough nearly everywhere; dear' : /steel/.test(name) ? 'cheap, holds whatever is asked' : 'thread-lock and gentle torque; shears in a crash',
  }))
  return { question: 'Screws', ways: [{ name: now, now: true, againstG: one(0), words: 'what the fixings plan has' }, ...ways] }
}

function slack(build: Build): School | null {
  const { rows } = planWires(build.fit?.wires ?? [])
  if (rows.length === 0) return null
  const slackG = rows.reduce((sum, { wire }) => sum + (wire.slackMm > 0 ? wiresG(wire.awg, wire.slackMm, wire.count) : 0), 0)
  const uncutG = rows.reduce((sum, row) => sum + row.savedG, 0)
  return { question: 'Leads', ways: [
    { name: 'cut, with the slack planned', now: true, againstG: one(0), words: 'what the wire plan has' },
    { name: 'cut to the way alone', now: false, againstG: one(-slackG), words: 'no second try at a joint' },
    { name: 'left as they came', now: false, againstG: one(uncutG), words: 'long enough for the next build' },
  ] }
}

function plugs(build: Build): School | null {
  const lead = build.lines.find(line => line.slot === 'power lead' && line.state === 'fitted')
  const plug = lead && connectorNamed(textOf(lead, 'plug') ?? '')
  if (!plug) return null
  return { question: 'Plug of the pack, both halves', ways: connectors.filter(c => c.continuousA >= plug.continuousA / 4).map(c => ({ name: c.connector, now: c === plug, againstG: one(c.pairG - plug.pairG), words: `bears ${c.continuousA} A for long, ${c.burstA} A in bursts` })) }
}

function boards(build: Build, estimates: LineEstimates): School | null {
  const board = build.lines.find(line => line.slot === 'board' && line.state === 'fitted' && ((propertiesOfLine(line).provides ?? []) as readonly string[]).includes('speed controller'))
  if (!board?.mass || build.lines.some(line => line.slot === 'speed controller' && line.state === 'fitted')) return null
  const nowG = estimates.of(board).valueG
  const ways = (['16 mm', '20 mm'] as const).flatMap((size): SchoolWay[] => {
    const [flight, speed] = [typicalMass('board', `flight controller ${size}`), typicalMass('speed controller', `4-in-1 ${size}`)]
    return flight && speed ? [{ name: `stack of ${size}`, now: false, againstG: [flight.lowG + speed.lowG - nowG, flight.highG + speed.highG - nowG], words: 'one half is replaced alone; more height and screws' }] : []
  })
  return { question: 'Boards', ways: [{ name: 'one board for all', now: true, againstG: one(0), words: 'lightest and flattest; a burnt corner takes all of it' }, ...ways] }
}
