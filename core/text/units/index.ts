export * from './mass-units'
export * from './read-number'
export * from './endings'
export * from './flight-time'
