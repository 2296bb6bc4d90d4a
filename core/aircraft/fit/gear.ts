export { noGear, type GroundGear } from '../../model/data'

/** Whether one of several names with semicolons between is this one. */
export function namesOne(several: string, name: string): boolean {
  return several.split(/[;\n]/).some(one => one.trim().toLowerCase() === name.trim().toLowerCase())
}
