export * from './linear'
export * from './plan'
export * from './problem'
