/** What makes the look of a drawing; style sheets do not travel with a file. */
const looks = [
  'fill',
  'fill-opacity',
  'stroke',
  'stroke-width',
  'stroke-opacity',
  'stroke-dasharray',
  'stroke-linecap',
  'stroke-linejoin',
  'opacity',
  'font-family',
  'font-size',
  'font-weight',
  'font-style',
  'text-anchor',
  'dominant-baseline',
  'visibility',
] as const

/** A drawing of the page as a file of its own: its look written into it, on the ground it stands on. */
export function svgFileOf(drawing: SVGSVGElement, title: string): string {
  const copy = drawing.cloneNode(true) as SVGSVGElement
  const [from, to] = [
    [drawing, ...drawing.querySelectorAll('*')],
    [copy, ...copy.querySelectorAll('*')],
  ]
  for (const [i, element] of from.entries()) {
    const style = getComputedStyle(element)
    if (style.display === 'none') {
      to[i]!.setAttribute('display', 'none')
      continue
    }
    for (const name of looks) {
      const value = style.getPropertyValue(name)
      if (value !== '') to[i]!.setAttribute(name, value)
    }
    for (const name of ['class', 'style', 'tabindex', 'role', 'aria-label'])
      if (element !== drawing || name !== 'aria-label') to[i]!.removeAttribute(name)
  }
  const { width, height } = sizeOf(drawing)
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg')
  copy.setAttribute('width', String(width))
  copy.setAttribute('height', String(height))
  if (!copy.hasAttribute('viewBox')) copy.setAttribute('viewBox', `0 0 ${width} ${height}`)
  const ground = document.createElementNS('http://www.w3.org/2000/svg', 'rect')
  ground.setAttribute('width', '100%')
  ground.setAttribute('height', '100%')
  ground.setAttribute('fill', groundOf(drawing))
  const name = document.createElementNS('http://www.w3.org/2000/svg', 'title')
  name.textContent = title
  copy.prepend(name, ground)
  return new XMLSerializer().serializeToString(copy)
}

function sizeOf(drawing: SVGSVGElement): { width: number; height: number } {
  const { width, height } = drawing.getBoundingClientRect()
  return { width: Math.ceil(width), height: Math.ceil(height) }
}

/** The colour of what the drawing lies on. */
function groundOf(drawing: Element): string {
  for (let element: Element | null = drawing; element; element = element.parentElement) {
    const colour = getComputedStyle(element).backgroundColor
    if (colour !== '' && colour !== 'transparent' && !colour.startsWith('rgba(0, 0, 0, 0')) return colour
  }
  return 'white'
}

/** Picture points for each px of the page: sharp in print and on fine screens. */
const sharpness = 2

/** The same drawing as a picture. */
export async function pngFileOf(drawing: SVGSVGElement, title: string): Promise<Blob> {
  const { width, height } = sizeOf(drawing)
  const image = new Image(width, height)
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svgFileOf(drawing, title))}`
  await image.decode()
  const canvas = document.createElement('canvas')
  canvas.width = width * sharpness
  canvas.height = height * sharpness
  const pen = canvas.getContext('2d')!
  pen.scale(sharpness, sharpness)
  pen.drawImage(image, 0, 0, width, height)
  return new Promise((done, fail) => {
    canvas.toBlob(blob => (blob ? done(blob) : fail(new Error('The picture could not be made.'))), 'image/png')
  })
}
