export * from './types'
export * from './edit-queue'
export * from './storage'
export * from './exclusively'
