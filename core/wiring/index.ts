export * from './electrical'
