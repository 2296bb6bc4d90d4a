export * from './rule-card'
