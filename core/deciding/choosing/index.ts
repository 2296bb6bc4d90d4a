export * from './figures'
export * from './candidates'
