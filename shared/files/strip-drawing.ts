import { groupOf, type Group } from '../../core/model/ledger'
import type { LineEstimates } from '../../core/mass/loadout'
import type { Overview } from '../../core/mass/report'
import { fixed, gramsWithSpread } from '../../core/text/display'

/** Colours of the groups by daylight: paper has no night. */
const colours: Readonly<Record<Group, string>> = {
  Frame: '#6b5876',
  Drive: '#b85a46',
  'Boards & power': '#2f7686',
  Video: '#d79b3a',
  Radio: '#7d9c4f',
  Fixings: '#a3978a',
  Payload: '#4c6796',
  'Flight pack': '#8a4f7d',
}
const escaped = (text: string) =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;')

/** The mass strip of a loadout as a drawing by itself: every gram to scale, the limit as a post, the ± as a whisker. */
export function stripDrawing(overview: Overview, estimates: LineEstimates, width = 900): string {
  const limitG = overview.binding?.limitG ?? null
  const most = Math.max((limitG ?? 0) * 1.05, (overview.massG + overview.spreadG) * 1.03, 1)
  const x = (grams: number) => Number(((grams / most) * width).toFixed(2))
  let fromG = 0
  const segments = overview.counted.flatMap(line => {
    const { valueG } = estimates.of(line)
    const start = x(fromG)
    fromG += valueG
    if (!line.mass || valueG <= 0) return []
    const wide = Math.max(x(fromG) - start - 1, 0.6).toFixed(2)
    const title = escaped(`${line.name}: ${fixed(valueG, 2)} g, ${line.mass.evidence}`)
    return [
      `<rect x="${start}" y="18" width="${wide}" height="26" rx="2" fill="${colours[groupOf(line.slot)]}"><title>${title}</title></rect>`,
    ]
  })
  const { massG, spreadG } = overview
  const whisker =
    spreadG > 0
      ? `<path d="M${x(massG - spreadG)},25v12m0,-6H${x(massG + spreadG)}m0,-6v12" fill="none" stroke="#2a2333" stroke-width="2"/>`
      : ''
  const post =
    limitG === null
      ? ''
      : `<line x1="${x(limitG)}" x2="${x(limitG)}" y1="14" y2="50" stroke="#2a2333" stroke-width="2"/>` +
        `<text x="${x(limitG)}" y="11" text-anchor="end" font-size="11">${fixed(limitG, 2)} g</text>`
  const label = escaped(`Mass strip: ${gramsWithSpread(massG, spreadG)}`)
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} 54" width="100%" role="img" ` +
    `aria-label="${label}" font-family="sans-serif" fill="#2a2333">` +
    `${segments.join('')}${post}${whisker}</svg>`
  )
}
