import type { LineEstimates } from '../../core/mass/loadout'
import { stripSegments, type Overview } from '../../core/mass/report'
import { fixed, gramsWithSpread } from '../../core/text/display'
import { escaped, paperColours } from './paper'

/** The mass strip of a loadout as a drawing by itself: every gram to scale, the limit as a post, the ± as a whisker. */
export function stripDrawing(overview: Overview, estimates: LineEstimates, width = 900): string {
  const limitG = overview.binding?.limitG ?? null
  const most = Math.max((limitG ?? 0) * 1.05, (overview.massG + overview.spreadG) * 1.03, 1)
  const x = (grams: number) => Number(((grams / most) * width).toFixed(2))
  const segments = stripSegments(overview, estimates).map(({ line, group, fromG, valueG }) => {
    const wide = Math.max(x(fromG + valueG) - x(fromG) - 1, 0.6).toFixed(2)
    const title = escaped(`${line.name}: ${fixed(valueG, 2)} g, ${line.mass!.evidence}`)
    const rect = `x="${x(fromG)}" y="18" width="${wide}" height="26" rx="2" fill="${paperColours[group]}"`
    return `<rect ${rect}><title>${title}</title></rect>`
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
