export * from './same'
export * from './merge'
