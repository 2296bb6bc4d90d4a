/** Starts the stand-in scale: `jiti simulators/scale/main.ts [scale port] [control port]`; port 0 takes a free one. Loopback only. */
import { startStandIn } from './stand-in'

const [scalePort = 4305, controlPort = 4306] = process.argv.slice(2).map(Number)
const standIn = await startStandIn({
  scalePort,
  controlPort,
  readingsPerSecond: Number(process.env.READINGS_PER_SECOND) || 10,
})
process.stdout.write(`${JSON.stringify({ scalePort: standIn.scalePort, controlPort: standIn.controlPort })}\n`)
