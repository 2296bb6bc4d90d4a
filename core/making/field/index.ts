export * from './kit'
