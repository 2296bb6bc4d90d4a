export * from './figures'
export * from './candidates'
export * from './while-typing'
export * from './order'
