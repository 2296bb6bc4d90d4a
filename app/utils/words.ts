import { dayOf } from './day-of'
import type { FitReport } from '#core/aircraft/fit'
import { packLabel, type Evidence, type Group, type Line, type Mass, type ReferenceCraft } from '#core/model/ledger'
import { uncheckedGainHalfWidth } from '#core/mass/scale'
import type { VerdictWord } from '#core/limits/verdict'
import { judgementWord, type CardJudgement, type Overview } from '#core/mass/report'
import type { Narrowing, NarrowingAction } from '#core/deciding/weigh'
import { decimalsOfStep, fixed, gramsFigure, headroomWords, percentFigure, spreadFigure } from '#core/text/display'
import { cardName } from '#core/limits/rules'

/** How wrong a scale may be that nobody has checked. */
export const uncheckedWords = () => `${percentFigure(uncheckedGainHalfWidth)} % either way`

/** How much of a craft that is known as a whole is accounted for by its parts, as far as they are said. */
export function accountedWords({ massG }: Pick<ReferenceCraft, 'massG'>, { massG: partsG, counted }: Overview): string {
  if (counted.length === 0) return 'nothing said of its parts'
  const share = massG > 0 ? `, ${fixed((100 * partsG) / massG, 0)} %` : ''
  return `${fixed(partsG, 1)} of ${fixed(massG, 1)} g accounted for${share}`
}

/** The short name a verdict has in style sheets. */
export const verdictTone: Record<VerdictWord, 'clear' | 'close' | 'over'> = {
  Clear: 'clear',
  'Too close to call': 'close',
  Over: 'over',
}

/** The colour variable of a group, and whether a label on it is dark. */
export const groupTone: Record<Group, { name: string; darkLabel: boolean }> = {
  Frame: { name: 'frame', darkLabel: false },
  Drive: { name: 'drive', darkLabel: false },
  'Boards & power': { name: 'boards', darkLabel: false },
  Video: { name: 'video', darkLabel: true },
  Radio: { name: 'radio', darkLabel: true },
  Fixings: { name: 'fixings', darkLabel: true },
  Payload: { name: 'payload', darkLabel: false },
  'Flight pack': { name: 'pack', darkLabel: false },
}

export const evidenceTexture: Record<Evidence, string> = {
  weighed: 'weighed',
  'worked out': 'worked',
  listed: 'listed',
  typical: 'typical',
  guess: 'guess',
  twin: 'twin',
}

export function lineTitle(line: Line): string {
  const label = packLabel(line)
  return label === line.name ? line.name : `${label} · ${line.name}`
}

/** Cells and capacity of a pack in a few words; that they are not known, where nobody has said. */
export const packWords = ({ pack }: Pick<Line, 'pack'>): string =>
  pack ? `${pack.cells}S ${pack.capacityMah}` : 'which pack is not said'

/** How a mass was weighed on one of the builder's scales, as a sentence. */
export function weighingWords(mass: Mass, quantity: number): string {
  const { weighing } = mass
  if (!weighing) return ''
  if (weighing.method === 'forecast difference')
    return (
      `${fixed(weighing.displaysG[0]!, 2)} g came off by forecast on ` +
      `${dayOf(weighing.takenAt)} (${mass.origin.replace(/^shaved: /, '')}); ` +
      `nobody has weighed it since.`
    )
  const shown = weighing.displaysG.map(g => fixed(g, decimalsOfStep(mass.resolutionG))).join(', ')
  const pieces = mass.pieceReadingsG
    ? `${mass.pieceReadingsG.length} of ${quantity} pieces one by one`
    : quantity > 1
      ? `${mass.valueCount} of ${quantity} pieces together`
      : weighing.method === 'typed'
        ? ''
        : weighing.method
  const check = weighing.checkId
    ? 'corrected by the check in force then'
    : `the scale was not checked: ${uncheckedWords()}`
  const day = dayOf(weighing.takenAt)
  const how =
    weighing.method === 'typed'
      ? `Typed on ${day} as shown on ${weighing.scaleName}`
      : `Weighed on ${weighing.scaleName} on ${day}`
  return `${how}${pieces && `, ${pieces}`}, ${mass.basis}; it showed ${shown} g, ${check}.`
}

/** How much of it was on a scale, as a few words. */
export function weighedShareWords(
  { weighedWhole, weighedLines }: { readonly weighedWhole: boolean; readonly weighedLines: number },
  lines: number,
): string {
  if (lines > 0 && weighedLines === lines) return `all ${lines} weighed`
  return weighedWhole ? 'weighed whole' : `${weighedLines} of ${lines} weighed`
}

/** "Weigh the video transmitter: it would settle it." or what an action brings. */
export function narrowingWords(
  { action, spreadBeforeG, spreadAfterG, settles }: Narrowing,
  closeCall: boolean,
): string {
  const brings = `± ${spreadFigure(spreadBeforeG)} becomes ± ${spreadFigure(spreadAfterG)}`
  return `${actionWords(action)}: ${closeCall && settles ? `it would settle it (${brings})` : brings}.`
}

function actionWords(action: NarrowingAction): string {
  if (action.kind === 'whole') return 'Weigh everything that counts together'
  if (action.kind === 'check')
    return `Check ${action.scaleName} with ${action.reference.name} and let it correct what was weighed on it`
  const names = action.lines.map(
    line =>
      `${line.slot === 'other' ? line.name : `the ${line.slot}`}${line.mass?.evidence === 'weighed' ? ' again' : ''}`,
  )
  return `Weigh ${names.join(' and ')}`
}

/** The whole strip in a sentence, for those who do not see it. */
export function overviewSentence(overview: Overview): string {
  const parts = overview.groups.map(g => `${g.group} ${gramsFigure(g.estimate.valueG, overview.spreadG)} g`)
  const verdict = overview.binding?.verdict
  const end = verdict
    ? ` ${verdict.word}: ${headroomWords(verdict.headroomG, overview.spreadG)} under ${cardName(overview.binding!.card)}.`
    : overview.binding
      ? ` ${judgementWord(overview.binding)}.`
      : ' No limit chosen.'
  return (
    `All-up weight ${gramsFigure(overview.massG, overview.spreadG)} grams, plus or minus ` +
    `${spreadFigure(overview.spreadG)}. ${parts.join(', ')}.${end}`
  )
}

export function toneOf(judgement: Pick<CardJudgement, 'verdict'> | null): 'clear' | 'close' | 'over' | 'none' {
  return judgement?.verdict ? verdictTone[judgement.verdict.word] : 'none'
}

/** The state of the fit in one line: "2 clashes, 1 to check". */
export function fitWords({ clashes, toCheck, asked }: Pick<FitReport, 'clashes' | 'toCheck' | 'asked'>): string {
  const said = [
    ...(clashes > 0 ? [clashes === 1 ? '1 clash' : `${clashes} clashes`] : []),
    ...(toCheck > 0 ? [`${toCheck} to check`] : []),
    ...(asked.length > 0 ? [`${asked.length} not known`] : []),
  ]
  return said.length > 0 ? said.join(', ') : 'no clash found'
}

/** Where the verdict of a build would stand. */
export const referenceNotJudged =
  'A reference craft is held up beside builds and not judged. Strip it, and the build that comes of it is.'
