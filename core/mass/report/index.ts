export * from './judged'
export * from './overview'
export * from './shares'
export * from './loadout-verdicts'
