/** The views of Fit, in the order of the work. */
export const fitViews = [
  ['power', 'Power'],
  ['stack', 'Stack-up'],
  ['fixings', 'Fixings'],
  ['leads', 'Leads'],
  ['buy', 'To buy'],
] as const
export type FitView = (typeof fitViews)[number][0]
