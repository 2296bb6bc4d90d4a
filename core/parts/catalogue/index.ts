export * from './typical'
export * from './presets'
export * from './typical-line'
export * from './sundries'
