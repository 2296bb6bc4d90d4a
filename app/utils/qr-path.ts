/** A code that a phone’s camera reads, as the outline of its dark squares, one unit each, with its size in units. */
export interface QrPath {
  readonly path: string
  readonly size: number
}

/** The code of an address; medium correction, so that a worn label still reads. */
export async function qrPath(text: string): Promise<QrPath> {
  const { create } = await import('qrcode')
  const { modules } = create(text, { errorCorrectionLevel: 'M' })
  const { size } = modules
  let path = ''
  for (let row = 0; row < size; row++)
    for (let column = 0; column < size; column++) {
      if (!modules.get(row, column)) continue
      let end = column
      while (end + 1 < size && modules.get(row, end + 1)) end++
      path += `M${column},${row}h${end - column + 1}v1h-${end - column + 1}z`
      column = end
    }
  return { path, size }
}
