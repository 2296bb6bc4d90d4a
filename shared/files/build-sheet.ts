import {
  centsFigure,
  minutesBand,
  gramsWithSpread,
  headroomWords,
  percentSure,
  priceWords,
} from '../../core/text/display'
import { sequenceOf } from '../../core/making/assembly'
import { slotFacts, type Build } from '../../core/model/ledger'
import type { HonestyTable } from '../../core/mass/listings'
import { defaultLoadout, estimatesOf, loadoutName } from '../../core/mass/loadout'
import { spreadG } from '../../core/maths/estimate'
import { flightReport } from '../../core/aircraft/flight'
import { judgementWord, overviewOf } from '../../core/mass/report'
import { cardName, limitInWords, whateverItWeighs, type RuleCard } from '../../core/limits/rules'

/** Text that Markdown leaves alone inside a table cell. */
function cell(text: string): string {
  return text
    .replace(/\\/g, '\\\\')
    .replace(/\|/g, '\\|')
    .replace(/[\r\n]+/g, ' ')
    .replace(/([*_`[\]<>#])/g, '\\$1')
}

/** A change with the reason somebody kept for it. */
export interface NotedChange {
  readonly at: string
  readonly title: string
  readonly note: string
}

/** The build sheet as Markdown: totals and verdicts, the ledger by group, every loadout, and what was noted. */
export function buildSheet(
  build: Build,
  cards: readonly RuleCard[],
  honesty: HonestyTable,
  currency: string,
  reasons: readonly NotedChange[] = [],
): string {
  const estimates = estimatesOf(build, honesty)
  const overview = overviewOf(build, defaultLoadout(build), cards, estimates)
  const out: string[] = [
    `# ${cell(build.name)}`,
    '',
    cell([build.craftClass, build.aim.purpose].filter(Boolean).join(' · ')),
    '',
  ]
  out.push(
    `**${gramsWithSpread(overview.massG, overview.spreadG)}** all-up (${cell(loadoutName(build, overview.choice))}), dry ${gramsWithSpread(overview.dry.valueG, spreadG(overview.dry))}. ± at 95 %.`,
    '',
  )
  for (const judgement of overview.judgements) {
    const verdict = judgement.verdict
    out.push(
      `- ${cell(cardName(judgement.card))}: ${limitInWords(judgement.card)}. ${verdict ? `**${verdict.word}**, ${headroomWords(verdict.headroomG, overview.spreadG)}, ${percentSure(verdict.probability)} sure.` : `${judgementWord(judgement)}.`} ${judgement.card.verifiedOn ? `Verified by me on ${judgement.card.verifiedOn}.` : 'Not verified by me yet.'}`,
    )
  }
  for (const card of whateverItWeighs(cards, build.aim)) {
    if (!overview.judgements.some(j => j.card.id === card.id))
      out.push(`- ${cell(cardName(card))}: whatever it weighs. No limit by weight: ${cell(card.beyond.join('; '))}.`)
  }
  out.push(
    '',
    '## Parts',
    '',
    '| Slot | What | × | Grams | Known by | Price |',
    '| --- | --- | ---: | ---: | --- | ---: |',
  )
  for (const group of overview.groups) {
    out.push(
      `| **${group.group}** |  |  | **${gramsWithSpread(group.estimate.valueG, spreadG(group.estimate))}** |  |  |`,
    )
    for (const line of group.lines) {
      const estimate = estimates.of(line)
      const price = line.priceEachCents === null ? '' : centsFigure(line.priceEachCents * line.quantity)
      out.push(
        `| ${slotFacts[line.slot].label} | ${cell(line.name)} | ${line.quantity} | ${line.mass ? gramsWithSpread(estimate.valueG, spreadG(estimate)) : 'open'} | ${line.mass?.evidence ?? ''} | ${price} |`,
      )
    }
  }
  out.push(
    '',
    `Fitted parts cost ${priceWords(overview.priceCents, overview.unpricedLines, cell(currency))}.`,
    '',
    '## Loadouts',
    '',
    '| Loadout | All-up weight | Minutes | Verdicts |',
    '| --- | ---: | ---: | --- |',
  )
  for (const row of flightReport(build, cards, honesty)) {
    const verdicts = row.cards
      .map(c => {
        const card = cards.find(k => k.id === c.cardId)!
        return `${cell(cardName(card))}: ${c.verdict}`
      })
      .join('; ')
    out.push(
      `| ${cell(row.loadout)} | ${gramsWithSpread(row.auwG, row.spreadG)} | ${row.minutes === null ? '' : minutesBand(row.hardMinutes!, row.gentleMinutes!)} | ${verdicts} |`,
    )
  }
  const steps = build.assembly?.records.filter(record => record.note !== '') ?? []
  const noted = [
    ...build.lines.filter(line => line.note !== '').map(line => `- ${cell(line.name)}: ${cell(line.note)}`),
    ...steps.map(record => `- ${cell(titleOfStep(build, record.stepId))}: ${cell(record.note)}`),
    ...reasons.map(({ at, title, note }) => `- ${at.slice(0, 10)}, ${cell(title)}: ${cell(note)}`),
  ]
  if (noted.length > 0) out.push('', '## Notes', '', ...noted)
  out.push('', 'A planning aid, not legal advice. Rules change: confirm with your aviation authority.', '')
  return out.join('\n')
}

function titleOfStep(build: Build, stepId: string): string {
  const sorted = sequenceOf(build, defaultLoadout(build))
  return ('steps' in sorted ? sorted.steps.find(step => step.id === stepId)?.title : undefined) ?? stepId
}
