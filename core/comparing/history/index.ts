export * from './figures'
export * from './sample'
export * from './fold'
