import type { Lessons } from '#core/aircraft/flown'

/** What flights teach the forecasts of a build: nothing while they are read, or where one looks at it without. */
export const lessonsFor = (
  { buildId, teaching }: { readonly buildId: string; readonly teaching: Lessons | null },
  id: string,
): Lessons | null => (buildId === id ? teaching : null)
