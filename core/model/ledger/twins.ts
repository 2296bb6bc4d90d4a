import type { Build, Line, Mass } from '../data'

/** Whether grams came from a scale, and not for this very piece once the build they are in was copied. */
const isWeighed = (mass: Mass | null): mass is Mass => mass?.evidence === 'weighed'

/** The grams of a piece like the one that was weighed. */
export function asTwin(mass: Mass, versionId: string): Mass {
  return { ...mass, versionId, evidence: 'twin', origin: `twin: ${mass.origin}`.slice(0, 200) }
}

/** A line of a copied build: another piece, which was never on a scale nor part of any weighing, and is no part of the drawer. */
export function twinOfLine(line: Line, newId: () => string): Line {
  const mass = isWeighed(line.mass) ? asTwin(line.mass, newId()) : line.mass
  return { ...line, mass, partId: null, edition: 0, further: [] }
}

/** Lines of a build that are known by the very weighing of a line of an earlier build: it was copied before copies were twins. */
export function weighedElsewhere(
  build: Pick<Build, 'id' | 'lines'>,
  earlier: readonly Pick<Build, 'id' | 'name' | 'lines'>[],
): { readonly from: string; readonly lineIds: readonly string[] } | null {
  for (const other of earlier) {
    const versions = new Set(
      other.lines.flatMap(line => (isWeighed(line.mass) && !line.partId ? [line.mass.versionId] : [])),
    )
    const lineIds = build.lines.flatMap(line =>
      isWeighed(line.mass) && !line.partId && versions.has(line.mass.versionId) ? [line.id] : [],
    )
    if (lineIds.length > 0) return { from: other.name, lineIds }
  }
  return null
}
