import { marked } from 'marked'
import type { Build } from '../../core/model/ledger'
import type { ListingBiasTable } from '../../core/mass/listings'
import { defaultLoadout, estimatesOf } from '../../core/mass/loadout'
import { overviewOf } from '../../core/mass/report'
import type { RuleCard } from '../../core/limits/rules'
import { escaped } from './paper'
import { stripDrawing } from './strip-drawing'

const style = `
  body { font: 15px/1.5 Georgia, serif; color: #2a2333; background: #fffdf8; max-width: 960px; margin: 2em auto; padding: 0 1em; }
  h1, h2 { line-height: 1.2; }
  table { border-collapse: collapse; width: 100%; font: 13px/1.4 sans-serif; margin: 0.6em 0 1.4em; }
  th, td { padding: 4px 8px; border-bottom: 1px solid #e2d7c1; vertical-align: top; }
  th { text-align: left; font-weight: 600; }
  img { max-width: 100%; background: #fff; }
  @media print { body { margin: 0; max-width: none; } }
`

/**
 * The build sheet as one page by itself, with its strip and its drawings in it: nothing is fetched and nothing runs, so
 * that it is read in ten years as it is today. `sheet` is the sheet as Markdown, whose texts are guarded already.
 */
export function buildPage(build: Build, cards: readonly RuleCard[], honesty: ListingBiasTable, sheet: string): string {
  const estimates = estimatesOf(build, honesty)
  const overview = overviewOf(build, defaultLoadout(build), cards, estimates)
  const [head, ...rest] = (marked.parse(sheet, { async: false, gfm: true }) as string).split('</h1>')
  const body = rest.length === 0 ? head! : `${head}</h1>\n${stripDrawing(overview, estimates)}${rest.join('</h1>')}`
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; img-src data:; style-src 'unsafe-inline'">
<title>${escaped(build.name)}</title>
<style>${style}</style>
</head>
<body>
${body}
</body>
</html>
`
}
