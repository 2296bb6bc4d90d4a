export { sumCompensated } from './sum'
export { normalCdf, normalQuantile, spreadFactor95 } from './normal'
export { studentQuantile975 } from './student'
