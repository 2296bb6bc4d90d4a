import { typicalMass } from '../../parts/catalogue'
import { fixingsSchedule, planWires } from '../../aircraft/fit'
import type { Build } from '../../model/ledger'
import type { LineEstimates } from '../../mass/loadout'
import { connectorNamed, connectors, plugPairG } from '../../aircraft/power'
import { propertiesOfLine, textOf } from '../../model/properties'
import { materialNamed, screwForm, screwG, tubeG, wiresG } from '../../mass/mass-calculators'
import { usualOfKind } from '../../model/data'

/** One way of doing a thing: grams for the whole build against the present way, and what goes with it. */
export interface SchoolWay {
  readonly name: string
  readonly againstG: readonly [number, number]
  readonly now: boolean
  readonly words: string
  /** What changing to it usually takes; null for the present way. */
  readonly minutes: number | null
  /** What it gives up against the present way, 0 to 5, or less than none where it wins it back. */
  readonly loss: number
  /** Against the present way in whole cents; null where the ledger knows no price. */
  readonly cents: number | null
}
/** A thing practitioners do in two ways or more, with what each comes to on this build. */
export interface School {
  readonly question: string
  readonly ways: readonly SchoolWay[]
}

/** The way it is now: what the others are held against. */
const present = (name: string, words: string): SchoolWay => ({
  name,
  now: true,
  againstG: one(0),
  words,
  minutes: null,
  loss: 0,
  cents: null,
})
const one = (grams: number): readonly [number, number] => [grams, grams]

/** The comparisons there are data for. Nothing is recommended: each way has its price. */
export function schoolsOf(build: Build, estimates: LineEstimates): School[] {
  return [
    screwMaterials(build),
    slack(build),
    soldered(build),
    plugs(build),
    boards(build, estimates),
    straps(build, estimates),
    wedgedProps(build),
    mounting(build),
  ].filter(school => school !== null && school.ways.length > 1) as School[]
}

function screwMaterials(build: Build): School | null {
  const rows = fixingsSchedule(build.fit?.joints ?? []).rows.filter(row => row.massG !== null)
  if (rows.length === 0) return null
  const names = [...new Set(rows.flatMap(row => row.materials.map(m => m.material)))]
  const now = [...new Set(rows.map(row => row.joint.material))].join(' and ')
  const ways = names.map((name): SchoolWay => ({
    name,
    now: false,
    againstG: one(-rows.reduce((sum, row) => sum + (row.materials.find(m => m.material === name)?.savesG ?? 0), 0)),
    minutes: usualOfKind['change material'].minutes * rows.length,
    loss: /steel|titanium/.test(name) ? 0 : 3,
    cents: null,
    words: /titanium/.test(name)
      ? 'strong enough nearly everywhere; dear'
      : /steel/.test(name)
        ? 'cheap, holds whatever is asked'
        : 'thread-lock and gentle torque; shears in a crash',
  }))
  return { question: 'Screws', ways: [present(now, 'what the fixings plan has'), ...ways] }
}

function slack(build: Build): School | null {
  const { rows } = planWires(build.fit?.wires ?? [])
  if (rows.length === 0) return null
  const slackG = rows.reduce(
    (sum, { wire }) => sum + (wire.slackMm > 0 ? wiresG(wire.awg, wire.slackMm, wire.count) : 0),
    0,
  )
  const uncutG = rows.reduce((sum, row) => sum + row.savedG, 0)
  return {
    question: 'Leads',
    ways: [
      present('cut, with the slack planned', 'what the wire plan has'),
      {
        name: 'cut to the way alone',
        now: false,
        againstG: one(-slackG),
        minutes: usualOfKind['trim leads'].minutes,
        loss: 2,
        cents: 0,
        words: 'no second try at a joint',
      },
      {
        name: 'left as they came',
        now: false,
        againstG: one(uncutG),
        minutes: -usualOfKind['trim leads'].minutes,
        loss: -1,
        cents: 0,
        words: 'long enough for the next build',
      },
    ],
  }
}

/** Direct solder or plugs on the motors: grams and a joint less, or a dead motor changed in two minutes. */
function soldered(build: Build): School | null {
  const motors = build.lines.find(line => line.slot === 'motor' && line.state === 'fitted')
  if (!motors) return null
  const pair = plugPairG(textOf(motors, 'plug') ?? '')
  const gramsG = (pair ?? plugPairG('small')!).grams * motors.quantity
  const { minutes, loss } = usualOfKind['direct solder']
  const words = {
    plugs: 'a dead motor is changed in two minutes; a plug more that can work loose',
    solder: 'nothing to work loose; the iron comes out for every repair',
  }
  return {
    question: 'Motor leads',
    ways: pair
      ? [
          present('plugs', words.plugs),
          {
            name: 'soldered straight to the board',
            now: false,
            againstG: one(-gramsG),
            minutes,
            loss,
            cents: 0,
            words: words.solder,
          },
        ]
      : [
          present('soldered straight to the board', words.solder),
          { name: 'plugs', now: false, againstG: one(gramsG), minutes, loss: -loss, cents: null, words: words.plugs },
        ],
  }
}

function plugs(build: Build): School | null {
  const lead = build.lines.find(line => line.slot === 'power lead' && line.state === 'fitted')
  const plug = lead && connectorNamed(textOf(lead, 'plug') ?? '')
  if (!plug) return null
  return {
    question: 'Plug of the pack, both halves',
    ways: connectors
      .filter(c => c.continuousA >= plug.continuousA / 4)
      .map((c): SchoolWay => {
        const words = `bears ${c.continuousA} A for long, ${c.burstA} A in bursts`
        return c === plug
          ? present(c.connector, words)
          : {
              name: c.connector,
              now: false,
              againstG: one(c.pairG - plug.pairG),
              words,
              minutes: usualOfKind['direct solder'].minutes,
              loss: 0,
              cents: null,
            }
      }),
  }
}

function boards(build: Build, estimates: LineEstimates): School | null {
  const board = build.lines.find(
    line =>
      line.slot === 'board' &&
      line.state === 'fitted' &&
      ((propertiesOfLine(line).provides ?? []) as readonly string[]).includes('speed controller'),
  )
  if (!board?.mass || build.lines.some(line => line.slot === 'speed controller' && line.state === 'fitted')) return null
  const nowG = estimates.of(board).valueG
  const ways = (['16 mm', '20 mm'] as const).flatMap((size): SchoolWay[] => {
    const [flight, speed] = [
      typicalMass('board', `flight controller ${size}`),
      typicalMass('speed controller', `4-in-1 ${size}`),
    ]
    return flight && speed
      ? [
          {
            name: `stack of ${size}`,
            now: false,
            minutes: 60,
            loss: -1,
            cents: null,
            againstG: [flight.lowG + speed.lowG - nowG, flight.highG + speed.highG - nowG],
            words: 'one half is replaced alone; more height and screws',
          },
        ]
      : []
  })
  return {
    question: 'Boards',
    ways: [present('one board for all', 'lightest and flattest; a burnt corner takes all of it'), ...ways],
  }
}

/** What holds the pack: a strap of cloth, or a ring of rubber. */
function straps(build: Build, estimates: LineEstimates): School | null {
  const fitted = build.lines.filter(line => line.slot === 'strap' && line.state === 'fitted')
  const [ring, cloth] = [typicalMass('strap', 'rubber ring'), typicalMass('strap', 'fabric 10-12 mm')]
  if (fitted.length === 0 || fitted.some(line => !line.mass) || !ring || !cloth) return null
  const count = fitted.reduce((sum, line) => sum + line.quantity, 0)
  const nowG = estimates.sum(fitted).valueG
  const isRing = nowG / count <= ring.highG
  const range = ({ lowG, highG }: { readonly lowG: number; readonly highG: number }) =>
    [count * lowG - nowG, count * highG - nowG] as const
  const words = {
    ring: 'light and cheap; ages in the sun, and the pack can slide',
    cloth: 'holds in a crash; wears where the plate is sharp',
  }
  return {
    question: 'What holds the pack',
    ways: isRing
      ? [
          present('rubber ring', words.ring),
          {
            name: 'narrow strap',
            now: false,
            minutes: 2,
            loss: -1,
            cents: null,
            againstG: range(cloth),
            words: words.cloth,
          },
        ]
      : [
          present('strap', words.cloth),
          {
            name: 'rubber ring',
            now: false,
            minutes: 2,
            loss: 1,
            cents: null,
            againstG: range(ring),
            words: words.ring,
          },
        ],
  }
}

/** Screws a prop is held by, from the shortest to the longest that are usual, mm. Our choice: 5 to 8 mm, two a prop. */
const propScrewsMm = [5, 8] as const

/** Props held by two screws each, or wedged on the shaft without any. */
function wedgedProps(build: Build): School | null {
  const props = build.lines.filter(line => line.slot === 'propeller' && line.state === 'fitted')
  const motor = build.lines.find(line => line.slot === 'motor' && line.state === 'fitted')
  if (props.length === 0 || !motor || textOf(motor, 'propMount') !== 'two screws') return null
  const count = 2 * props.reduce((sum, line) => sum + line.quantity, 0)
  const [low, high] = propScrewsMm.map(
    length => count * screwG(screwForm('M2', 'button'), length, materialNamed('alloy steel')!.densityGPerCm3),
  ) as [number, number]
  return {
    question: 'Props on the motors',
    ways: [
      present('two screws each', 'stays on whatever happens'),
      {
        name: 'wedged on the shaft, a turn of thread round it',
        now: false,
        minutes: 10,
        loss: 3,
        cents: 0,
        againstG: [-high, -low],
        words: 'a prop can come off in the air: never over people',
      },
    ],
  }
}

/** Grommets under one board; their outside and inside, mm. Our choice: the usual ones for M2. */
const grommets = { count: 4, outerMm: 5, innerMm: 2.2 } as const

/** Boards on rubber, or screwed down. */
function mounting(build: Build): School | null {
  const layers = build.fit?.stack?.layers ?? []
  const soft = layers.filter(layer => layer.kind === 'grommet' && layer.heightMm !== null && layer.heightMm > 0)
  const hard = layers.filter(layer => layer.kind === 'spacer' && layer.heightMm !== null && layer.heightMm > 0)
  const of = (material: string, heights: readonly (typeof layers)[number][]) =>
    heights.reduce(
      (sum, { heightMm }) =>
        sum +
        grommets.count * tubeG(grommets.outerMm, grommets.innerMm, heightMm!, materialNamed(material)!.densityGPerCm3),
      0,
    )
  const words = {
    soft: 'keeps the shake of the motors from the gyro; the screws are longer',
    hard: 'nothing wears or tears; every shake reaches the gyro',
  }
  if (soft.length > 0)
    return {
      question: 'Boards in the frame',
      ways: [
        present('soft, on rubber', words.soft),
        {
          name: 'hard, on nylon',
          now: false,
          minutes: 15,
          loss: 2,
          cents: null,
          againstG: one(of('nylon 6/6', soft) - of('silicone rubber', soft)),
          words: words.hard,
        },
      ],
    }
  if (hard.length > 0)
    return {
      question: 'Boards in the frame',
      ways: [
        present('hard, on spacers', words.hard),
        {
          name: 'soft, on rubber',
          now: false,
          minutes: 15,
          loss: -2,
          cents: null,
          againstG: one(of('silicone rubber', hard) - of('nylon 6/6', hard)),
          words: words.soft,
        },
      ],
    }
  return null
}
