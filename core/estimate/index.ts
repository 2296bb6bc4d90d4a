export * from './estimate'
