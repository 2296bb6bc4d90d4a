export * from './craft'
export * from './devices'
export * from './full-throttle'
