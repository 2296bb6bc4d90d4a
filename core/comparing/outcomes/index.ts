export * from './finished'
export * from './lines'
export * from './sundries'
export * from './totals'
