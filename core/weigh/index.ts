export * from './take'
export * from './run'
