import { halfReachMm, type Balance, type Piece } from '../../core/aircraft/balance'
import { escaped } from './paper'

/** Ink of the drawings, and how far they go on beyond the pieces, mm. */
const [ink, soft, packFill, bobFill] = ['#222222', '#8a8a8a', '#e6dcec', '#d9a441']
const airMm = 6

const n = (mm: number) => String(Math.round(mm * 10) / 10)

/** Where a piece is drawn, nose to the left, and how large. */
function drawn(from: 'above' | 'left', piece: Piece) {
  const [x, y, z] = piece.atMm
  const [width, height, high] = piece.sizeMm
  if (from === 'above') return { x: -x, y, width, height, turn: piece.shape === 'box' ? piece.turnDeg : 0 }
  return { x: -x, y: -z, width: 2 * halfReachMm(piece)[0], height: high, turn: 0 }
}

function shapeOf(from: 'above' | 'left', piece: Piece): string {
  const { x, y, width, height, turn } = drawn(from, piece)
  const look =
    `fill="${piece.slot === 'pack' ? packFill : 'none'}" stroke="${piece.shape === 'disc' ? soft : ink}" ` +
    `stroke-width="0.5"${piece.isAssumed ? ' stroke-dasharray="2 1.4"' : ''}`
  if (from === 'above' && piece.shape !== 'box')
    return `<ellipse cx="${n(x)}" cy="${n(y)}" rx="${n(width / 2)}" ry="${n(height / 2)}" ${look}/>`
  const turned = turn === 0 ? '' : ` transform="rotate(${n(turn)} ${n(x)} ${n(y)})"`
  return `<rect x="${n(x - width / 2)}" y="${n(y - height / 2)}" width="${n(width)}" height="${n(height)}" ${look}${turned}/>`
}

/** The craft to scale as a drawing of its own (SVG), nose to the left; what nobody has placed is dashed. */
export function layoutDrawing({ layout, centre }: Balance, from: 'above' | 'left'): string {
  const shown = [...layout.pieces].sort((a, b) => Number(b.shape === 'disc') - Number(a.shape === 'disc'))
  const boxes = shown.map(piece => drawn(from, piece))
  // A turned piece reaches at most as far as its corners.
  const ends = (at: 'x' | 'y', size: 'width' | 'height') =>
    boxes.flatMap(box => {
      const half = (box.turn === 0 ? box[size] : Math.hypot(box.width, box.height)) / 2
      return [box[at] - half, box[at] + half]
    })
  const [xs, ys] = [ends('x', 'width'), ends('y', 'height')]
  const [left, top] = [Math.min(...xs) - airMm, Math.min(...ys) - airMm]
  const [width, height] = [Math.max(...xs) - left + airMm, Math.max(...ys) - top + airMm]
  const bob = centre && { x: -centre.atMm[0], y: from === 'above' ? centre.atMm[1] : -centre.atMm[2] }
  const names = shown
    .filter(piece => piece.slot === 'pack')
    .map(piece => {
      const { x, y } = drawn(from, piece)
      return `<text x="${n(x)}" y="${n(y)}" font-size="6" text-anchor="middle" fill="${ink}">${escaped(piece.name)}</text>`
    })
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${n(3 * width)}" height="${n(3 * height)}"`,
    ` viewBox="${n(left)} ${n(top)} ${n(width)} ${n(height)}" font-family="sans-serif">`,
    ...shown.map(piece => shapeOf(from, piece)),
    ...names,
    bob
      ? `<circle cx="${n(bob.x)}" cy="${n(bob.y)}" r="2.2" fill="${bobFill}" stroke="${ink}" stroke-width="0.6"/>`
      : '',
    '</svg>',
  ].join('')
}
