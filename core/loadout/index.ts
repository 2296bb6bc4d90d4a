export * from './counted'
export * from './sheet'
