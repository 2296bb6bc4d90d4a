export * from './charge-used'
export * from './pack-learnt'
export * from './mean-power'
export * from './calibration'
