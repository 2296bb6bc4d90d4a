export * from './counted'
export * from './line-estimates'
export * from './loadout-totals'
export * from './loadout-mean'
