/** The pages of the stations, in the order of work, each with the views of it that have an address of their own. */
export const stationViews = {
  aim: [''],
  parts: [''],
  fit: ['', '?view=stack', '?view=fixings', '?view=leads', '?view=buy'],
  weigh: ['', '?pan=whole'],
  shave: [''],
  packs: ['', '?view=discharge', '?view=setups', '?view=go'],
  assemble: ['', '?view=connections', '?view=maiden', '?view=repair'],
  balance: ['', '?view=camera'],
  fly: ['', '?view=findings', '?view=charts', '?view=lives', '?view=log', '?view=settings'],
  record: ['', '?view=day', '?view=day&at=3', '?view=outcomes', '?view=card'],
} as const satisfies Readonly<Record<string, readonly string[]>>

export type StationPage = keyof typeof stationViews
