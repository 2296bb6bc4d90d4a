import { CoreInputError } from '../../basics/errors'

/**
 * Density of dry air, kg/m³, at an altitude of −500 to 9000 m and −40 to 60 °C. Throws outside those ranges.
 * Source: international standard atmosphere for the pressure, ideal gas for the density.
 *
 * @example airDensity(1500, 5) // 1.05903
 */
export function airDensity(altitudeM: number, temperatureC: number): number {
  if (!(altitudeM >= -500 && altitudeM <= 9000))
    throw new CoreInputError('airDensity', 'altitudeM', altitudeM, { is: 'in range', least: -500, most: 9000 })
  if (!(temperatureC >= -40 && temperatureC <= 60))
    throw new CoreInputError('airDensity', 'temperatureC', temperatureC, { is: 'in range', least: -40, most: 60 })
  const pressurePa = 101_325 * (1 - 2.25577e-5 * altitudeM) ** 5.25588
  return pressurePa / (287.05 * (temperatureC + 273.15))
}
