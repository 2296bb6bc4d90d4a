export * from './terms'
