export * from './format'
export * from './style'
export * from './input-words'
export * from './field-words'
