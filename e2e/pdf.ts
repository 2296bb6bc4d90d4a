import { inflateSync } from 'node:zlib'

/** A filled shape of a page, in millimetres of paper. */
export interface PdfBox {
  readonly widthMm: number
  readonly heightMm: number
}

type Matrix = readonly [number, number, number, number, number, number]
const times = ([a, b, c, d, e, f]: Matrix, [A, B, C, D, E, F]: Matrix): Matrix => [
  a * A + b * C,
  a * B + b * D,
  c * A + d * C,
  c * B + d * D,
  e * A + f * C + E,
  e * B + f * D + F,
]
const mmOfPoint = 25.4 / 72

/** The drawing commands of a PDF’s pages and forms, in their order. */
function streamsOf(pdf: Buffer): string[] {
  const streams: string[] = []
  for (let at = pdf.indexOf('stream\n'); at >= 0; at = pdf.indexOf('stream\n', at + 7)) {
    if (pdf.subarray(at - 3, at).toString() === 'end') continue
    const end = pdf.indexOf('endstream', at)
    try {
      streams.push(inflateSync(pdf.subarray(at + 7, end)).toString('latin1'))
    } catch {
      // Pictures and fonts that are packed otherwise draw no shapes.
    }
  }
  return streams
}

/** The boxes round all shapes of a PDF that are filled, in millimetres of paper; turned ones by their upright box. */
export function filledBoxes(pdf: Buffer): PdfBox[] {
  return streamsOf(pdf).flatMap(boxesOf)
}
function boxesOf(commands: string): PdfBox[] {
  const boxes: PdfBox[] = []
  const kept: Matrix[] = []
  let matrix: Matrix = [1, 0, 0, 1, 0, 0]
  let numbers: number[] = []
  let points: [number, number][] = []
  const reach = (x: number, y: number) => {
    points.push([matrix[0] * x + matrix[2] * y + matrix[4], matrix[1] * x + matrix[3] * y + matrix[5]])
  }
  for (const word of commands.split(/\s+/)) {
    if (/^[-+.\d]/.test(word)) {
      numbers.push(Number(word))
      continue
    }
    const [x = 0, y = 0, width = 0, height = 0] = numbers
    if (word === 'q') kept.push(matrix)
    else if (word === 'Q') matrix = kept.pop() ?? matrix
    else if (word === 'cm') matrix = times(numbers as unknown as Matrix, matrix)
    else if (word === 'm' || word === 'l') reach(x, y)
    else if (word === 're') {
      reach(x, y)
      reach(x + width, y + height)
    } else if (/^(f\*?|B\*?|b\*?|F|S|s|n)$/.test(word)) {
      if (points.length > 0 && /^[fFBb]/.test(word)) {
        const [xs, ys] = [points.map(([px]) => px), points.map(([, py]) => py)]
        boxes.push({
          widthMm: (Math.max(...xs) - Math.min(...xs)) * mmOfPoint,
          heightMm: (Math.max(...ys) - Math.min(...ys)) * mmOfPoint,
        })
      }
      points = []
    }
    numbers = []
  }
  return boxes
}
