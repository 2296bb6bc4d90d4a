export * from './parse-line'
export * from './line-splitter'
export * from './steadiness'
