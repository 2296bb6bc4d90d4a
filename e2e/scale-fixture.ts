import { expect, test as base } from './server'
import { pocketScale } from '../simulators/scale/pan'
import { startStandIn } from '../simulators/scale/stand-in'

/** A quick stand-in for the bench scale: 50 readings a second, at rest in a blink. */
export class Bench {
  private constructor(private readonly standIn: Awaited<ReturnType<typeof startStandIn>>) {}
  static async start(): Promise<Bench> {
    return new Bench(
      await startStandIn({
        scalePort: 0,
        controlPort: 0,
        readingsPerSecond: 50,
        traits: { ...pocketScale, settleS: 0.04, noiseG: 0.0005, creepGPerMin: 0 },
      }),
    )
  }

  get address(): string {
    return `127.0.0.1:${this.standIn.scalePort}`
  }

  async control(method: 'PUT' | 'POST', path: string, data?: unknown): Promise<void> {
    const answer = await fetch(`http://127.0.0.1:${this.standIn.controlPort}${path}`, {
      method,
      body: data === undefined ? undefined : JSON.stringify(data),
    })
    expect(answer.ok, await answer.text()).toBe(true)
  }

  put(massG: number, dialect?: 'letters' | 'commas' | 'plain'): Promise<void> {
    return this.control('PUT', '/pan', { masses: massG === 0 ? [] : [{ name: 'part', massG }], dialect })
  }

  stop(): Promise<void> {
    return this.standIn.stop()
  }
}

export const blueScale = {
  name: 'blue pocket scale',
  resolutionG: 0.01,
  capacityG: 200,
  repeatabilityG: 0.008,
  checkIntervalDays: 30,
}

/** A server with Marzipan on it, a checked scale, and the stand-in on its bench. */
export const test = base.extend<{ bench: Bench }>({
  bench: async ({ server }, use) => {
    const bench = await Bench.start()
    await server.bringIn('marzipan')
    await server.send('PUT', '/api/scales/blue', blueScale)
    await server.send('POST', '/api/scales/blue/checks', {
      takenAt: new Date().toISOString(),
      placings: [
        { references: [], displayG: 0 },
        { references: [{ id: 'brass', massG: 100, toleranceG: 0.01 }], displayG: 100.22 },
      ],
    })
    await server.send('PUT', '/api/settings', { ...(await server.json('/api/settings')), benchScale: bench.address })
    await use(bench)
    await bench.stop()
  },
})
export { expect }
