export * from './pieces'
export * from './line-estimate'
