export * from './types'
export * from './apply'
export * from './patch'
export * from './describe'
