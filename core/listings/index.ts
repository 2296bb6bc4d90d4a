export * from './honesty'
