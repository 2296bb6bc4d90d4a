export * from './figures'
export * from './properties'
