export * from './vehicle-model'
export * from './devices'
export * from './full-throttle'
export * from './drive'
