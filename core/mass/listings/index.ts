export * from './listing-bias'
