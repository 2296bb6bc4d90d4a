/** What a build is made of: data alone. Everything of the core may import it, and it imports nothing. */
export * from './slots'
export * from './loadout-choice'
export * from './properties'
export * from './installation'
export * from './flight-plan'
export * from './shave-list'
export * from './assembly'
export * from './build'
