export * from './common'
export * from './sentences'
