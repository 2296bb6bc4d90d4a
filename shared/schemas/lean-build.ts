import type { Build, Line, Observation, Subject } from '../../core/model/ledger'

/** The mass of a subject as it is sent: where it is the very version its line has, only said so. */
type LeanMass = Subject['mass'] | { readonly asLine: true }
export type LeanBuild = Omit<Build, 'observations'> & {
  readonly observations: readonly (Omit<Observation, 'subjects'> & {
    readonly subjects: readonly (Omit<Subject, 'mass'> & { readonly mass: LeanMass })[]
  })[]
}

const isAsLine = (mass: LeanMass): mass is { readonly asLine: true } => mass !== null && 'asLine' in mass

function linesOf({ lines }: Pick<Build, 'lines'>): ReadonlyMap<string, Line> {
  return new Map(lines.map(line => [line.id, line]))
}

/**
 * A build as it is sent: weighings of the whole craft say what was on the pan, which is mostly what the lines are now. A version
 * of grams is never changed, so one that a line has need not be sent again with every weighing of it.
 */
export function leanBuild(build: Build): LeanBuild {
  const lines = linesOf(build)
  const lean = ({ mass, ...subject }: Subject) => {
    const isOfLine = mass !== null && lines.get(subject.id)?.mass?.versionId === mass.versionId
    return { ...subject, mass: isOfLine ? ({ asLine: true } as const) : mass }
  }
  return { ...build, observations: build.observations.map(one => ({ ...one, subjects: one.subjects.map(lean) })) }
}

/** The build that was sent; one that was sent whole comes out as it is. */
export function wholeBuild(sent: LeanBuild | Build): Build {
  const lines = linesOf(sent)
  const whole = (subject: LeanBuild['observations'][number]['subjects'][number]): Subject => {
    const { mass } = subject
    return isAsLine(mass) ? { ...subject, mass: lines.get(subject.id)!.mass } : (subject as Subject)
  }
  return {
    ...sent,
    observations: sent.observations.map(one => ({ ...one, subjects: one.subjects.map(whole) })),
  } as Build
}
