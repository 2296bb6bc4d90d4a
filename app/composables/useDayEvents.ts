/** Something that happened to a craft on a day, as the weight history marks it. */
export interface DayEvent {
  readonly kind: 'weighed' | 'shaved' | 'flown' | 'crash' | 'repaired' | 'mark'
  readonly at: string
  readonly words: string
}

/** What happened to the build on view: weighings, shavings that were done, flights, crashes, repairs, and the builder’s own marks. */
export function useDayEvents() {
  const store = useBuildStore()
  const flights = useFlightsStore()
  const looking = useLookingBackStore()
  const midday = (day: string) => `${day}T12:00:00`

  return computed((): DayEvent[] => {
    const build = store.build
    if (!build) return []
    const together = build.observations.map(({ takenAt, title }) => ({ at: takenAt, words: `weighed: ${title}` }))
    const single = build.lines.flatMap(({ name, mass }) =>
      mass?.weighing ? [{ at: mass.weighing.takenAt, words: `weighed: ${name}` }] : [],
    )
    const shaved = (build.shave?.shavings ?? []).flatMap(({ doneOn, what }) =>
      doneOn === null ? [] : [{ at: midday(doneOn), words: `shaved: ${what}` }],
    )
    return [
      ...[...together, ...single].map(one => ({ kind: 'weighed' as const, ...one })),
      ...shaved.map(one => ({ kind: 'shaved' as const, ...one })),
      ...flights.flights.map(({ flownAt }) => ({
        kind: 'flown' as const,
        at: flownAt,
        words: `flown ${flightDay(flownAt)}`,
      })),
      ...flights.findings
        .filter(({ kind }) => kind === 'crash')
        .map(({ foundAt }) => ({ kind: 'crash' as const, at: foundAt, words: `crash ${flightDay(foundAt)}` })),
      ...flights.renewals.map(({ at }) => ({
        kind: 'repaired' as const,
        at,
        words: `a part renewed ${flightDay(at)}`,
      })),
      ...flights.findings.flatMap(({ kind, goneAt }) =>
        goneAt === null
          ? []
          : [{ kind: 'repaired' as const, at: goneAt, words: `mended: ${kind}, ${flightDay(goneAt)}` }],
      ),
      ...looking.marks.map(({ at, mark }) => ({ kind: 'mark' as const, at, words: mark })),
    ]
  })
}
