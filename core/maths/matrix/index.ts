export * from './cholesky'
