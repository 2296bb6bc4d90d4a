import { CoreInputError, requireNotNegative } from '../../basics/errors'
import { standardGravityMps2 } from '../../text/units'

function requirePositive(where: string, field: string, value: number): void {
  if (!(value > 0) || !Number.isFinite(value))
    throw new CoreInputError(where, field, value, { is: 'in range', above: 0 })
}

/** Area swept by so many props of one diameter, m². */
export function discAreaM2(props: number, diameterMm: number): number {
  requirePositive('discAreaM2', 'props', props)
  requirePositive('discAreaM2', 'diameterMm', diameterMm)
  return (props * Math.PI * (diameterMm / 1000) ** 2) / 4
}

/** Power an ideal rotor of that area needs to hold up a mass, W. `densityKgM3` above zero. Source: momentum theory. */
export function idealHoverW(massG: number, areaM2: number, densityKgM3: number): number {
  requireNotNegative('idealHoverW', 'massG', massG)
  requirePositive('idealHoverW', 'areaM2', areaM2)
  requirePositive('idealHoverW', 'densityKgM3', densityKgM3)
  return ((massG / 1000) * standardGravityMps2) ** 1.5 / Math.sqrt(2 * densityKgM3 * areaM2)
}

/**
 * Mean power of a flight, W: style × ideal / efficiency + avionics. Style 1 is hover; efficiency, 0 to 1, is one number
 * for figure of merit, motor and speed controller.
 *
 * @example meanFlightW({ idealW: idealHoverW(240, discAreaM2(4, 76.2), 1.225), style: 1, efficiency: 0.35, avionicsW: 6 }) // 54.800
 */
export function meanFlightW({
  idealW,
  style,
  efficiency,
  avionicsW,
}: {
  idealW: number
  style: number
  efficiency: number
  avionicsW: number
}): number {
  requireNotNegative('meanFlightW', 'idealW', idealW)
  requirePositive('meanFlightW', 'style', style)
  if (!(efficiency > 0 && efficiency <= 1))
    throw new CoreInputError('meanFlightW', 'efficiency', efficiency, { is: 'in range', above: 0, most: 1 })
  requireNotNegative('meanFlightW', 'avionicsW', avionicsW)
  return (style * idealW) / efficiency + avionicsW
}

/** The share of the power that lifts, by the size of the prop; one number for figure of merit, motor and speed controller. */
export function usualEfficiency(
  diameterMm: number,
  ducted: boolean,
): { readonly efficiency: number; readonly craft: string } {
  if (ducted) return { efficiency: 0.28, craft: 'ducted' }
  if (diameterMm < 70) return { efficiency: 0.33, craft: '2 to 2.5 inch' }
  if (diameterMm < 95) return { efficiency: 0.38, craft: '3 to 3.5 inch' }
  return { efficiency: 0.45, craft: '4 to 5 inch' }
}
/** How far that number may be off, as a share of it. */
export const efficiencySpread = 0.25
