/** Starts the stand-in scale: `jiti simulators/scale/main.ts [scale port] [control port]`. Loopback only. */
import { startStandIn } from './stand-in'

const [scalePort, controlPort] = process.argv.slice(2).map(Number)
const standIn = await startStandIn({ scalePort: scalePort || 4305, controlPort: controlPort || 4306, readingsPerSecond: Number(process.env.READINGS_PER_SECOND) || 10 })
console.log(JSON.stringify({ scalePort: standIn.scalePort, controlPort: standIn.controlPort }))
