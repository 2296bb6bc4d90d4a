import type { Group } from '../../core/model/ledger'

/** Colours of the groups by daylight, as the screens have them: paper has no night. */
export const paperColours: Readonly<Record<Group, string>> = {
  Frame: '#6b5876',
  Drive: '#b85a46',
  'Boards & power': '#2f7686',
  Video: '#d79b3a',
  Radio: '#7d9c4f',
  Fixings: '#a3978a',
  Payload: '#4c6796',
  'Flight pack': '#8a4f7d',
}

/** Text within a drawing or a page. */
export const escaped = (text: string) =>
  text.replace(/[&<>"]/g, sign => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign]!)
