import type { Line, Slot } from '../../model/ledger'
import { measureOf } from '../../model/properties'
import type { ShapeOfPiece, Vec3 } from './pieces'

/** What a piece of a kind usually measures along the nose, across and high, mm, where nobody has said. Our choice. */
const usualMm: Readonly<Record<Slot, Vec3>> = {
  frame: [110, 110, 3],
  canopy: [45, 30, 20],
  guard: [60, 60, 10],
  motor: [18, 18, 14],
  propeller: [64, 64, 5],
  board: [32, 32, 8],
  'speed controller': [32, 32, 6],
  'power distribution': [32, 32, 3],
  'power lead': [30, 12, 6],
  capacitor: [8, 8, 12],
  camera: [16, 14, 14],
  'video transmitter': [28, 28, 6],
  aerial: [6, 6, 25],
  receiver: [14, 11, 3],
  navigation: [18, 18, 6],
  sounder: [11, 9, 5],
  strap: [14, 36, 30],
  pad: [40, 25, 2],
  screw: [40, 40, 4],
  standoff: [50, 30, 20],
  'printed part': [20, 18, 12],
  wire: [30, 20, 4],
  coating: [30, 30, 1],
  other: [30, 20, 4],
  payload: [25, 20, 12],
  pack: [70, 34, 28],
}

/** How much wider and higher a motor is than its stator, mm. Our choice: bell, base and the clip of the shaft. */
const motorBeyond = { acrossMm: 4, highMm: 9 }

export interface Size {
  readonly sizeMm: Vec3
  readonly shape: ShapeOfPiece
  /** Some of it is not said, but what such a piece usually has. */
  readonly isAssumed: boolean
}

/** The size of one piece of a line, from its properties; what they do not say is as usual for its kind. */
export function sizeOf(line: Line): Size {
  const usual = usualMm[line.slot]
  const told = (key: string) => measureOf(line, key) ?? null
  const boxed = (long: number | null, wide: number | null, high: number | null): Size => ({
    sizeMm: [long ?? usual[0], wide ?? usual[1], high ?? usual[2]],
    shape: 'box',
    isAssumed: long === null || wide === null || high === null,
  })
  const round = (shape: ShapeOfPiece, across: number | null, high: number | null): Size => ({
    sizeMm: [across ?? usual[0], across ?? usual[0], high ?? usual[2]],
    shape,
    isAssumed: across === null || high === null,
  })
  switch (line.slot) {
    case 'motor': {
      const [stator, height] = [told('statorDiameterMm'), told('statorHeightMm')]
      return round(
        'can',
        stator === null ? null : stator + motorBeyond.acrossMm,
        height === null ? null : height + motorBeyond.highMm,
      )
    }
    case 'propeller':
      return { ...round('disc', told('diameterMm'), usual[2]) }
    case 'capacitor':
      return round('can', told('diameterMm'), told('lengthMm'))
    case 'camera': {
      const wide = told('widthMm')
      return boxed(wide, wide, wide)
    }
    case 'aerial':
      return boxed(usual[0], usual[1], told('heightMm'))
    case 'strap':
      return boxed(told('widthMm'), usual[1], usual[2])
    case 'pad':
      return boxed(told('lengthMm'), told('widthMm'), told('thicknessMm'))
    case 'canopy':
      return boxed(null, null, told('heightMm'))
    default:
      return boxed(told('lengthMm'), told('widthMm'), told('heightMm'))
  }
}
