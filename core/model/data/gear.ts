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

/** Nothing said. */
export const noGear: GroundGear = {
  radioFamily: '',
  videoFamily: '',
  polarisation: '',
  chargerCells: null,
  chargerPlugs: '',
}
