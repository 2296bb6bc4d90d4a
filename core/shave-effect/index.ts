export * from './effect'
