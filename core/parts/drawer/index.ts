export * from './part'
export * from './filter'
