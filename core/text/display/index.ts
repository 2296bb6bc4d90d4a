export * from './format'
export * from './field-words'
