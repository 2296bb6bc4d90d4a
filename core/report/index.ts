export * from './judged'
export * from './overview'
export * from './settle'
export * from './loadout-verdicts'
