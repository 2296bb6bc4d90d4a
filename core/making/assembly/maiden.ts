import { gramsWithSpread } from '../../text/display'
import { shortName } from '../../aircraft/wiring'
import { packTitle, type Build, type LoadoutChoice } from '../../model/ledger'
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

/** The card of the first flight, made from the build and the loadout it takes off in. */
export function maidenChecks(
  build: Build,
  choice: LoadoutChoice,
  overview: Overview,
  steps: readonly AssemblyStep[],
): MaidenCheck[] {
  const lines = countedLines(build, choice)
  const pack = lines.find(line => line.id === choice.packLineId)
  const assembly = assemblyOf(build)
  const verdict = overview.binding?.verdict
  const check = (words: string, open = false): MaidenCheck => ({ words, open })
  const gone = steps.filter(step => recordOf(assembly, step.id).overriddenWhy !== '')
  const failed = steps.filter(
    step =>
      step.test && recordOf(assembly, step.id).test === 'failed' && recordOf(assembly, step.id).overriddenWhy === '',
  )
  const untested = steps.filter(
    step => step.test && recordOf(assembly, step.id).test === null && recordOf(assembly, step.id).skippedWhy === null,
  )
  const has = (slot: Parameters<typeof providersOf>[1]) => providersOf(lines, slot).length > 0
  return [
    check(
      `${loadoutName(build, choice)}: ${gramsWithSpread(overview.massG, overview.spreadG)}${verdict ? `, ${verdict.word} under ${cardName(overview.binding!.card)}` : ''}`,
      verdict !== undefined && verdict !== null && verdict.word !== 'Clear',
    ),
    ...failed.map(step => check(`Failed: ${step.title}`, true)),
    ...gone.map(step => check(`Gone past: ${step.title} (${recordOf(assembly, step.id).overriddenWhy})`, true)),
    ...(untested.length > 0
      ? [
          check(
            `${untested.length} ${untested.length === 1 ? 'test' : 'tests'} not ticked: ${untested.map(step => step.title).join('; ')}`,
            true,
          ),
        ]
      : []),
    ...(pack?.pack
      ? [
          check(
            `${packTitle(pack)}: label read, ${pack.pack.cells} ${pack.pack.cells === 1 ? 'cell' : 'cells'} full, not swollen, strap tight, lead clear of the props${textOf(pack, 'cautions') ? `; ${textOf(pack, 'cautions')}` : ''}`,
          ),
        ]
      : [check('No pack is chosen for this loadout', true)]),
    ...lines.filter(line => line.slot === 'screw').map(line => check(`${line.quantity} screws checked: ${line.name}`)),
    ...lines
      .filter(line => line.slot === 'propeller')
      .map(line =>
        check(
          `Props fast and the right way: ${shortName(line)}${build.fit?.mounting.pushedProps ? ', pushed: lettering up, towards the motor' : ''}`,
        ),
      ),
    ...(has('video transmitter') ? [check('Video aerial on; channel free; a spotter where goggles are worn')] : []),
    ...(has('navigation') ? [check('Satellites found before arming')] : []),
    ...(has('receiver') ? [check('Failsafe tried today; range checked at the edge of the field')] : []),
    check('Arming switch off, throttle down, nobody within ten metres; never over people'),
    check('Local rules read; registration where they ask for it'),
    check(`Spare: props${pack ? ', a second pack' : ''}, driver, tape, a way to put out a burning pack`),
    check(`First hover one minute at knee height; land, feel every motor: all alike and no hotter than a hand bears`),
  ]
}
