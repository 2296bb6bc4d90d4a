import {
  centsFigure,
  fixed,
  minutesBand,
  gramsWithSpread,
  headroomWords,
  ouncesFigure,
  percentSure,
  priceWords,
} from '../../core/text/display'
import { balanceOf } from '../../core/aircraft/balance'
import { sequenceOf } from '../../core/making/assembly'
import { slotFacts, type Build, type Line } from '../../core/model/ledger'
import type { ListingBiasTable } from '../../core/mass/listings'
import { defaultLoadout, estimatesOf, loadoutName, type LineEstimates } from '../../core/mass/loadout'
import { spreadG } from '../../core/maths/estimate'
import type { Lessons } from '../../core/aircraft/flown'
import { flightReport, type FlightReportRow } from '../../core/aircraft/flight'
import { judgementWord, overviewOf, type CardJudgement, type Overview } from '../../core/mass/report'
import { layoutDrawing } from './layout-drawing'
import { cardName, limitInWords, whateverItWeighs, type RuleCard } from '../../core/limits/rules'

/** Text that Markdown leaves alone inside a table cell. */
function cell(text: string): string {
  return text
    .replace(/\\/g, '\\\\')
    .replace(/\|/g, '\\|')
    .replace(/[\r\n]+/g, ' ')
    .replace(/([*_`[\]<>#])/g, '\\$1')
}

/** How the builder wants money and masses written. */
export interface SheetWriting {
  readonly currency: string
  readonly ounces: boolean
}

/** A change with the reason somebody kept for it. */
export interface NotedChange {
  readonly at: string
  readonly title: string
  readonly note: string
}

/** A row of a Markdown table. */
const row = (cells: readonly (string | number)[]) => `| ${cells.join(' | ')} |`

function totals(build: Build, overview: Overview, { ounces }: SheetWriting): string[] {
  const inOunces = (valueG: number) => (ounces ? ` (${ouncesFigure(valueG)} oz)` : '')
  const allUp = gramsWithSpread(overview.massG, overview.spreadG) + inOunces(overview.massG)
  const dry = gramsWithSpread(overview.dry.valueG, spreadG(overview.dry)) + inOunces(overview.dry.valueG)
  return [
    `# ${cell(build.name)}`,
    '',
    cell([build.craftClass, build.aim.purpose].filter(Boolean).join(' · ')),
    '',
    build.reference
      ? `**${gramsWithSpread(build.reference.massG, build.reference.spreadG)}** as a whole; ${allUp} of it said of its parts.`
      : `**${allUp}** all-up (${cell(loadoutName(build, overview.choice))}), dry ${dry}. ± at 95 %.`,
    '',
  ]
}

function judgementLine(judgement: CardJudgement, overview: Overview): string {
  const { card, verdict } = judgement
  const word = verdict
    ? `**${verdict.word}**, ${headroomWords(verdict.headroomG, overview.spreadG)}, ${percentSure(verdict.probability)} sure.`
    : `${judgementWord(judgement)}.`
  const verified = card.verifiedOn ? `Verified by me on ${card.verifiedOn}.` : 'Not verified by me yet.'
  return `- ${cell(cardName(card))}: ${limitInWords(card)}. ${word} ${verified}`
}

function judgements(build: Build, cards: readonly RuleCard[], overview: Overview): string[] {
  const judged = new Set(overview.judgements.map(j => j.card.id))
  const unlimited = whateverItWeighs(cards, build.aim).filter(card => !judged.has(card.id))
  return [
    ...overview.judgements.map(judgement => judgementLine(judgement, overview)),
    ...unlimited.map(
      card => `- ${cell(cardName(card))}: whatever it weighs. No limit by weight: ${cell(card.beyond.join('; '))}.`,
    ),
    '',
  ]
}

function ledger(overview: Overview, estimates: LineEstimates, currency: string): string[] {
  const lineRow = (line: Line) => {
    const estimate = estimates.of(line)
    const grams = line.mass ? gramsWithSpread(estimate.valueG, spreadG(estimate)) : 'open'
    const price = line.priceEachCents === null ? '' : centsFigure(line.priceEachCents * line.quantity)
    return row([slotFacts[line.slot].label, cell(line.name), line.quantity, grams, line.mass?.evidence ?? '', price])
  }
  return [
    '## Parts',
    '',
    '| Slot | What | × | Grams | Known by | Price |',
    '| --- | --- | ---: | ---: | --- | ---: |',
    ...overview.groups.flatMap(({ group, estimate, lines }) => [
      `| **${group}** |  |  | **${gramsWithSpread(estimate.valueG, spreadG(estimate))}** |  |  |`,
      ...lines.map(lineRow),
    ]),
    '',
    `Fitted parts cost ${priceWords(overview.priceCents, overview.unpricedLines, cell(currency))}.`,
    '',
  ]
}

/** What the minutes rest on besides the computation; nothing where no flight says anything. */
function minutesRestOn(build: Build, lessons: Lessons | null): string[] {
  const own = lessons?.said.reduce((sum, one) => sum + (one.buildId === build.id ? one.flights : 0), 0) ?? 0
  return own === 0 ? [] : ['', `Minutes rest on ${own} ${own === 1 ? 'flight' : 'flights'}.`]
}

function loadouts(
  build: Build,
  cards: readonly RuleCard[],
  honesty: ListingBiasTable,
  lessons: Lessons | null,
): string[] {
  const nameOf = new Map(cards.map(card => [card.id, cell(cardName(card))]))
  const loadoutRow = (flight: FlightReportRow) => {
    const { auwG, spreadG: spread, minutes, hardMinutes, gentleMinutes } = flight
    const verdicts = flight.cards.map(({ cardId, verdict }) => `${nameOf.get(cardId)}: ${verdict}`).join('; ')
    const band = minutes === null ? '' : minutesBand(hardMinutes!, gentleMinutes!)
    return row([cell(flight.loadout), gramsWithSpread(auwG, spread), band, verdicts])
  }
  return [
    '## Loadouts',
    '',
    '| Loadout | All-up weight | Minutes | Verdicts |',
    '| --- | ---: | ---: | --- |',
    ...flightReport(build, cards, honesty, lessons).map(loadoutRow),
    ...minutesRestOn(build, lessons),
  ]
}

/** A round bracket would end the address of a picture. */
const withoutBrackets = (text: string) => text.replaceAll('(', '%28').replaceAll(')', '%29')

/** How the loadout hangs, with the craft to scale from above and from the left; nothing of what weighs nothing. */
function balance(build: Build, overview: Overview, estimates: LineEstimates): string[] {
  const hung = balanceOf(build, overview.choice, estimates)
  const { centre, spreadMm, slide, pack, assumed, layout } = hung
  if (!centre) return []
  const offset = (mm: number, spread: number, [plus, minus]: readonly [string, string]) =>
    `${fixed(Math.abs(mm), 1)} ± ${fixed(spread, 1)} mm ${mm < 0 ? minus : plus}`
  const [x, y] = centre.atMm
  const picture = (from: 'above' | 'left', words: string) =>
    `![${words}](data:image/svg+xml,${withoutBrackets(encodeURIComponent(layoutDrawing(hung, from)))})`
  return [
    '',
    '## Balance',
    '',
    `Centre of gravity ${offset(x, spreadMm[0], ['ahead of', 'behind'])} the middle of the motors, ` +
      `${offset(y, spreadMm[1], ['to the left', 'to the right'])}` +
      (hung.abovePropsMm === null
        ? '.'
        : `, ${offset(hung.abovePropsMm, spreadMm[2], ['above the props', 'below the props'])}.`),
    ...(pack && slide && slide.frontAtMm !== null && slide.missesMm < 0.05
      ? [
          '',
          `The front of ${cell(pack.name)} belongs ${fixed(slide.frontAtMm, 1)} mm behind the front edge of the tray.`,
        ]
      : []),
    '',
    picture('above', 'From above, nose left'),
    '',
    picture('left', 'From the left, nose left'),
    '',
    assumed === 0 ? '' : `${assumed} of ${layout.pieces.length} pieces are drawn where they usually sit, dashed.`,
  ]
}

function notes(build: Build, reasons: readonly NotedChange[]): string[] {
  const steps = build.assembly?.records.filter(record => record.note !== '') ?? []
  const noted = [
    ...build.lines.filter(line => line.note !== '').map(line => `- ${cell(line.name)}: ${cell(line.note)}`),
    ...steps.map(record => `- ${cell(titleOfStep(build, record.stepId))}: ${cell(record.note)}`),
    ...reasons.map(({ at, title, note }) => `- ${at.slice(0, 10)}, ${cell(title)}: ${cell(note)}`),
  ]
  return noted.length > 0 ? ['', '## Notes', '', ...noted] : []
}

/** What a crash has taught. */
export interface TaughtByCrash {
  /** Local day and time. */
  readonly at: string
  readonly kind: string
  readonly lesson: string
}

function taughtBy(crashes: readonly TaughtByCrash[]): string[] {
  const rows = crashes.map(({ at, kind, lesson }) => `- ${at.slice(0, 10)}, ${cell(kind)}: ${cell(lesson)}`)
  return rows.length > 0 ? ['', '## What was learnt', '', ...rows] : []
}

/** The build sheet as Markdown: totals and verdicts, the ledger by group, every loadout, and what was noted. */
export function buildSheet(
  build: Build,
  cards: readonly RuleCard[],
  honesty: ListingBiasTable,
  writing: SheetWriting,
  reasons: readonly NotedChange[] = [],
  lessons: Lessons | null = null,
  crashes: readonly TaughtByCrash[] = [],
): string {
  const estimates = estimatesOf(build, honesty)
  const overview = overviewOf(build, defaultLoadout(build), cards, estimates)
  return [
    ...totals(build, overview, writing),
    ...judgements(build, cards, overview),
    ...ledger(overview, estimates, writing.currency),
    ...loadouts(build, cards, honesty, lessons),
    ...balance(build, overview, estimates),
    ...notes(build, reasons),
    ...taughtBy(crashes),
    '',
    'A planning aid, not legal advice. Rules change: confirm with your aviation authority.',
    '',
  ].join('\n')
}

function titleOfStep(build: Build, stepId: string): string {
  const sorted = sequenceOf(build, defaultLoadout(build))
  return ('steps' in sorted ? sorted.steps.find(step => step.id === stepId)?.title : undefined) ?? stepId
}
