import { gramsWithSpread } from '../../text/display'
import { shortName } from '../../aircraft/wiring'
import { packTitle, type Build, type Line, type LoadoutChoice, type Slot } from '../../model/ledger'
import { countedLines, loadoutName } from '../../mass/loadout'
import { providersOf, textOf } from '../../model/properties'
import type { Overview } from '../../mass/report'
import { cardName } from '../../limits/rules'
import { recordOf, assemblyOf } from './progress'
import type { AssemblyStep } from '../../model/data'

/** One check before the first take-off; `open` where the build itself says it is not settled. */
export interface MaidenCheck {
  readonly words: string
  readonly open: boolean
}

const check = (words: string, open = false): MaidenCheck => ({ words, open })

function weightCheck(build: Build, choice: LoadoutChoice, { massG, spreadG, binding }: Overview): MaidenCheck {
  const verdict = binding?.verdict
  const under = verdict ? `, ${verdict.word} under ${cardName(binding!.card)}` : ''
  const isOpen = verdict !== undefined && verdict !== null && verdict.word !== 'Clear'
  return check(`${loadoutName(build, choice)}: ${gramsWithSpread(massG, spreadG)}${under}`, isOpen)
}

/** Tests that failed, were gone past, or were never made. */
function testChecks(build: Build, steps: readonly AssemblyStep[]): MaidenCheck[] {
  const assembly = assemblyOf(build)
  const told = steps.map(({ id, title, test }) => ({ title, test, record: recordOf(assembly, id) }))
  const tested = told.filter(({ test }) => test)
  const failed = tested.filter(({ record }) => record.test === 'failed' && record.overriddenWhy === '')
  const gone = told.filter(({ record }) => record.overriddenWhy !== '')
  const open = tested.filter(({ record }) => record.test === null && record.skippedWhy === null)
  const openWords = `${open.length} ${open.length === 1 ? 'test' : 'tests'} not ticked`
  return [
    ...failed.map(({ title }) => check(`Failed: ${title}`, true)),
    ...gone.map(({ title, record }) => check(`Gone past: ${title} (${record.overriddenWhy})`, true)),
    ...(open.length > 0 ? [check(`${openWords}: ${open.map(({ title }) => title).join('; ')}`, true)] : []),
  ]
}

function packCheck(pack: Line | undefined): MaidenCheck {
  if (!pack?.pack) return check('No pack is chosen for this loadout', true)
  const { cells } = pack.pack
  const cautions = textOf(pack, 'cautions')
  const full = `${cells} ${cells === 1 ? 'cell' : 'cells'} full, not swollen, strap tight, lead clear of the props`
  return check(`${packTitle(pack)}: label read, ${full}${cautions ? `; ${cautions}` : ''}`)
}

const ofEveryCraft = [
  'Arming switch off, throttle down, nobody within ten metres; never over people',
  'Local rules read; registration where they ask for it',
]

/** The card of the first flight, made from the build and the loadout it takes off in. */
export function maidenChecks(
  build: Build,
  choice: LoadoutChoice,
  overview: Overview,
  steps: readonly AssemblyStep[],
): MaidenCheck[] {
  const lines = countedLines(build, choice)
  const pack = lines.find(line => line.id === choice.packLineId)
  const of = (slot: Slot) => lines.filter(line => line.slot === slot)
  const has = (slot: Slot) => providersOf(lines, slot).length > 0
  const pushed = build.fit?.mounting.pushedProps ? ', pushed: lettering up, towards the motor' : ''
  return [
    weightCheck(build, choice, overview),
    ...testChecks(build, steps),
    packCheck(pack),
    ...of('screw').map(line => check(`${line.quantity} screws checked: ${line.name}`)),
    ...of('propeller').map(line => check(`Props fast and the right way: ${shortName(line)}${pushed}`)),
    ...(has('video transmitter') ? [check('Video aerial on; channel free; a spotter where goggles are worn')] : []),
    ...(has('navigation') ? [check('Satellites found before arming')] : []),
    ...(has('receiver') ? [check('Failsafe tried today; range checked at the edge of the field')] : []),
    ...ofEveryCraft.map(words => check(words)),
    check(`Spare: props${pack ? ', a second pack' : ''}, driver, tape, a way to put out a burning pack`),
    check('First hover one minute at knee height; land, feel every motor: all alike and no hotter than a hand bears'),
  ]
}

/** What changes between one flight and the next: the card of the first flight, cut down to it. */
export function betweenFlights(build: Build, choice: LoadoutChoice, overview: Overview): MaidenCheck[] {
  const lines = countedLines(build, choice)
  const pack = lines.find(line => line.id === choice.packLineId)
  const has = (slot: Slot) => providersOf(lines, slot).length > 0
  const weight = weightCheck(build, choice, overview)
  return [
    ...(weight.open ? [weight] : []),
    packCheck(pack),
    ...(has('propeller') ? [check('Props fast, none nicked')] : []),
    ...(has('video transmitter') ? [check('Video aerial on; channel free; a spotter where goggles are worn')] : []),
    ...(has('navigation') ? [check('Satellites found before arming')] : []),
    check(ofEveryCraft[0]!),
  ]
}
