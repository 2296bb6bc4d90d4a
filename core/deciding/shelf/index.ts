export * from './entry'
