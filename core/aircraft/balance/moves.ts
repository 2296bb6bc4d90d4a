import { requireFinite, requireNotNegative, requirePositive } from '../../basics/errors'

/** Where the pack’s middle may lie, mm. */
export interface Range {
  readonly leastMm: number
  readonly mostMm: number
}

/**
 * Where the middle of the pack brings the centre of gravity to the middle, x* = x − M·cₓ/m, kept within the tray; what
 * remains of the offset then. `tray` null: nobody has said where it ends. Units: g and mm. Null without a pack that weighs
 * something.
 */
export function packSlide(
  pack: { readonly xMm: number; readonly massG: number } | null,
  massG: number,
  centreXMm: number,
  tray: Range | null,
): { readonly wantedMm: number; readonly toMm: number; readonly remainsMm: number; readonly missesMm: number } | null {
  if (!pack || !(pack.massG > 0)) return null
  for (const value of [pack.xMm, massG, centreXMm]) requireFinite('packSlide', 'pack', value)
  const wantedMm = pack.xMm - (massG * centreXMm) / pack.massG
  const toMm = tray ? Math.min(Math.max(wantedMm, tray.leastMm), tray.mostMm) : wantedMm
  return {
    wantedMm,
    toMm,
    remainsMm: centreXMm + (pack.massG * (toMm - pack.xMm)) / massG,
    missesMm: Math.abs(wantedMm - toMm),
  }
}

/** Something that may be moved along the nose: how dear a millimetre of it is, and how far it may go, mm. */
export interface Movable {
  readonly massG: number
  readonly weight: number
  readonly leastMm: number
  readonly mostMm: number
}

/**
 * The least moves Σ wᵢdᵢ² with Σ mᵢdᵢ = `momentGmm` within their bounds: dᵢ = clamp(λ·mᵢ/wᵢ), λ by bisection.
 * `missingGmm` is what cannot be reached. Throws where a mass or weight is not above zero or a bound excludes staying.
 */
export function leastMoves(
  movables: readonly Movable[],
  momentGmm: number,
): { readonly movesMm: readonly number[]; readonly missingGmm: number } {
  requireFinite('leastMoves', 'momentGmm', momentGmm)
  for (const { massG, weight, leastMm, mostMm } of movables) {
    requirePositive('leastMoves', 'massG', massG)
    requirePositive('leastMoves', 'weight', weight)
    requireNotNegative('leastMoves', 'leastMm', -leastMm)
    requireNotNegative('leastMoves', 'mostMm', mostMm)
  }
  const at = (lambda: number) =>
    movables.map(({ massG, weight, leastMm, mostMm }) => Math.min(Math.max((lambda * massG) / weight, leastMm), mostMm))
  const moment = (lambda: number) => at(lambda).reduce((sum, mm, i) => sum + mm * movables[i]!.massG, 0)
  const sign = momentGmm < 0 ? -1 : 1
  const reach = movables.reduce(
    (most, { massG, weight, leastMm, mostMm }) => Math.max(most, ((sign < 0 ? -leastMm : mostMm) * weight) / massG),
    0,
  )
  let [low, high] = [0, Number.isFinite(reach) ? reach : Math.abs(momentGmm) * Math.max(...movables.map(m => m.weight))]
  for (let i = 0; i < 200; i++) {
    const middle = (low + high) / 2
    if (Math.abs(moment(sign * middle)) < Math.abs(momentGmm)) low = middle
    else high = middle
  }
  const movesMm = at(sign * high).map(mm => mm + 0)
  return { movesMm, missingGmm: momentGmm - movesMm.reduce((sum, mm, i) => sum + mm * movables[i]!.massG, 0) }
}
