import type { Build, FurtherWeighing, Line, Mass, Observation, Subject, Weighing } from '../data'

/** Whether what was on the pan is the piece a line is now: then what is known of the one is known of the other. */
export function isPresentPiece(subject: Subject, line: Pick<Line, 'id' | 'edition' | 'mass'>): boolean {
  if (subject.id !== line.id) return false
  if (subject.edition !== undefined) return subject.edition === line.edition
  return subject.mass?.versionId === line.mass?.versionId
}

/** A subject of a weighing from a line as it is. */
export function subjectOf({ id, slot, quantity, mass, edition }: Line): Subject {
  return { id, slot, quantity, mass, edition }
}

type Weighings = Pick<Build, 'observations'>

/** The weighings with every subject that is this line's piece as `change` says; the very same ones where nothing changed. */
function withSubjects<B extends Weighings>(build: B, line: Line, change: (subject: Subject) => Subject): B {
  let touched = false
  const observations = build.observations.map((observation): Observation => {
    if (!observation.subjects.some(subject => isPresentPiece(subject, line) && change(subject) !== subject))
      return observation
    touched = true
    return {
      ...observation,
      subjects: observation.subjects.map(subject => (isPresentPiece(subject, line) ? change(subject) : subject)),
    }
  })
  return touched ? { ...build, observations } : build
}

/** Before a line becomes better known: weighings from before there were editions learn which one was on the pan. */
export function withEditionsKnown<B extends Weighings>(build: B, line: Line): B {
  return withSubjects(build, line, subject =>
    subject.edition === undefined ? { ...subject, edition: line.edition } : subject,
  )
}

/** Before a line becomes another piece (`line` is what it was): what was on the pan keeps what was known of it last. */
export function withPieceLeftBehind<B extends Weighings>(build: B, line: Line): B {
  const { mass, edition } = line
  return withSubjects(build, line, subject => {
    if (subject.edition === edition && (mass === null || subject.mass === mass)) return subject
    return { ...subject, edition, mass: mass ?? subject.mass }
  })
}

/** The line as another piece: its weighings so far are of what it was. */
export function asAnotherPiece(line: Line, was: Line): Line {
  return { ...line, edition: was.edition + 1, further: leftBehind(was) }
}

function leftBehind({ further, mass, quantity }: Line): readonly FurtherWeighing[] {
  if (mass === null || further.every(one => one.of)) return further
  return further.map(one => (one.of ? one : { ...one, of: { quantity, mass } }))
}

/** Whether grams were typed in, not taken from a scale: as shown on the scale at hand, or on one nobody has named. */
export function isTyped({ weighing }: Pick<Mass, 'weighing'>): boolean {
  return weighing === null || weighing.method === 'typed'
}

/** The weighings of a line on a scale: what is only forecast, or known of a twin, carries its causes the same way and was never on one. */
export function scaleWeighings({ mass, further }: Pick<Line, 'mass' | 'further'>): Weighing[] {
  return [...(mass ? [mass] : []), ...further.flatMap(one => (one.of ? [] : [one.mass]))].flatMap(
    ({ evidence, weighing }) =>
      weighing && evidence !== 'twin' && weighing.method !== 'forecast difference' ? [weighing] : [],
  )
}
