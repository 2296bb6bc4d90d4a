export { sumCompensated } from './sum'
export { normalCdf, normalQuantile, coverageFactor95 } from './normal'
export { studentQuantile975 } from './student'
