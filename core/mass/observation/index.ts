export * from './condition'
export * from './reconcile'
