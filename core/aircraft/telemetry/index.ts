export * from './columns'
export * from './log'
export * from './work-out'
export * from './resistance'
