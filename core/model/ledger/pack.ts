import { chemistries, type Chemistry, type Line, type PackFacts, type PackSoFar } from '../data'

/** What a pack is called: its label, or the name of its line while nobody has said what pack it is. */
export function packLabel(line: Pick<Line, 'name' | 'pack' | 'packSoFar'>): string {
  return line.pack?.label || line.packSoFar?.label || line.name
}

const names: Record<Chemistry, RegExp> = {
  LiPo: /\bli-?po\b/i,
  LiHV: /\bli-?hv\b/i,
  'Li-ion': /\bli(?:thium)?-?ion\b/i,
}

/** `Pack P4`, but never “Pack Pack”: a label that says it is a pack stands alone. */
export const packTitle = (line: Pick<Line, 'name' | 'pack' | 'packSoFar'>): string =>
  /^packs?\b/i.test(packLabel(line)) ? packLabel(line) : `Pack ${packLabel(line)}`

/** What words say of a pack (`4S 650 mAh LiPo`); only what stands in them. */
export function packInWords(words: string): PackSoFar {
  const text = words.slice(0, 200)
  const cells = /(?<![-–\d.])\b([1-9]|1[0-4])s\b(?!\s?[-–])/i.exec(text)?.[1]
  const capacity = /\b(\d{2,5})\s?mah\b/i.exec(text)?.[1]
  const named = chemistries.filter(chemistry => names[chemistry].test(text))
  return {
    ...(cells === undefined ? {} : { cells: Number(cells) }),
    ...(capacity === undefined ? {} : { capacityMah: Number(capacity) }),
    ...(named.length === 1 ? { chemistry: named[0]! } : {}),
  }
}

/** The whole pack, where cells, chemistry and capacity are all said; null while one is not. */
export function wholePack(soFar: PackSoFar, name: string): PackFacts | null {
  const { cells, chemistry, capacityMah } = soFar
  if (cells === undefined || chemistry === undefined || capacityMah === undefined) return null
  return {
    label: soFar.label || name.slice(0, 40),
    cells,
    chemistry,
    capacityMah,
    cRating: soFar.cRating ?? null,
    plug: soFar.plug ?? '',
  }
}

/** Whether these are the figures every new pack once came with, whatever it was. */
export function madeUpPack(pack: PackFacts): boolean {
  return (
    pack.cells === 1 &&
    pack.chemistry === 'LiPo' &&
    pack.capacityMah === 300 &&
    pack.cRating === null &&
    pack.plug === ''
  )
}

/** Whether a pack that is asked about is asked because it was saved with those figures; what its name says does not count. */
export function cameMadeUp(soFar: PackSoFar | null): boolean {
  const pack = soFar && wholePack(soFar, '')
  return pack !== null && madeUpPack(pack)
}

/** A line from before packs could be half said: one with the made-up figures is asked about. */
export function withPackAsked<L extends Pick<Line, 'pack'>>(line: L): L & Pick<Line, 'pack' | 'packSoFar'> {
  return line.pack && madeUpPack(line.pack)
    ? { ...line, pack: null, packSoFar: { label: line.pack.label, cells: 1, chemistry: 'LiPo', capacityMah: 300 } }
    : { ...line, packSoFar: null }
}
