/**
 * What the builder flies with on the ground: what parts must get along with. Several families or plugs have a semicolon
 * between; empty texts are not known.
 */
export interface GroundGear {
  readonly radioFamily: string
  readonly videoFamily: string
  /** Hand of polarisation of the goggles' aerials; empty for not known. */
  readonly polarisation: '' | 'left hand' | 'right hand' | 'linear'
  readonly chargerCells: number | null
  readonly chargerPlugs: string
}
/** Whether one of several names with semicolons between is this one. */
export function namesOne(several: string, name: string): boolean {
  return several.split(/[;\n]/).some(one => one.trim().toLowerCase() === name.trim().toLowerCase())
}

export const noGear: GroundGear = {
  radioFamily: '',
  videoFamily: '',
  polarisation: '',
  chargerCells: null,
  chargerPlugs: '',
}
