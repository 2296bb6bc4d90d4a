export * from './match'
export * from './differences'
