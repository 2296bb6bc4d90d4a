export * from './verdict'
