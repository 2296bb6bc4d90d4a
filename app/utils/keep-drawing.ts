/** Keeps a drawing of the page as a file: as it is drawn, or as a picture. */
export async function keepDrawing(drawing: SVGSVGElement, name: string, format: 'SVG' | 'PNG'): Promise<void> {
  const { svgFileOf, pngFileOf } = await import('./chart-file')
  if (format === 'SVG') saveFile(`${name}.svg`, svgFileOf(drawing, name), 'image/svg+xml')
  else saveFile(`${name}.png`, await pngFileOf(drawing, name))
}
