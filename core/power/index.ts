export * from './cells'
export * from './connectors'
