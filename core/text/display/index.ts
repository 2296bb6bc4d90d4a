export * from './format'
export * from './input-words'
export * from './field-words'
