export * from './typical'
export * from './presets'
