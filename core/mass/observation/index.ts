export * from './cholesky'
export * from './condition'
export * from './reconcile'
