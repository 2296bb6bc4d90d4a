import { afterEach, describe, expect, it } from 'vitest'
import { createServer, type AddressInfo, type Server, type Socket } from 'node:net'
import { parseReading, steadiness, type TimedReading } from '../../core/mass/readings'
import { benchScale, type BenchScale } from '../../server/devices/bench-scale'
import type { BenchReadings, BenchState } from '../../shared/schemas/bench-scale'
import { dialects, lineOf, Pan, pocketScale } from './pan'
import { startStandIn } from './stand-in'

describe('the pan', () => {
  const settle = (pan: Pan, seconds: number) => Array.from({ length: seconds * 10 }, () => pan.after(0.1)).at(-1)!
  it('settles to what lies on it times its gain, within noise, and repeats with its seed', () => {
    const [one, two] = [new Pan(), new Pan()]
    for (const pan of [one, two]) pan.put([17, 0.46])
    expect(one.after(0.1).stable).toBe(false)
    expect(two.after(0.1).massG).toBeLessThan(10)
    const display = settle(one, 3)
    expect(display).toEqual(settle(two, 3))
    expect(display.stable).toBe(true)
    expect(Math.abs(display.massG! - 17.46 * pocketScale.gain)).toBeLessThan(0.03)
  })
  it('zeroes what lies there, drifts with time and temperature, and says overload', () => {
    const pan = new Pan({ ...pocketScale, noiseG: 0, placingG: 0 })
    pan.put([5])
    settle(pan, 3)
    pan.zero()
    expect(Math.abs(settle(pan, 1).massG!)).toBeLessThan(0.011)
    expect(settle(pan, 1200).massG!).toBeGreaterThan(0.06)
    pan.put([150])
    pan.zero()
    const cool = settle(pan, 5).massG!
    pan.temperatureC = 40
    expect(settle(pan, 5).massG!).toBeGreaterThan(cool + 0.04)
    pan.put([250])
    expect(settle(pan, 3).massG).toBeNull()
  })
  it.each(dialects)('is read back from the dialect “%s”, unsteady, steady and overloaded', dialect => {
    const display = { massG: -3.1, stable: false, decimals: 2 }
    expect(parseReading(lineOf(display, dialect))).toMatchObject({
      massG: -3.1,
      marked: dialect === 'plain' ? null : 'unstable',
    })
    expect(parseReading(lineOf({ ...display, massG: 17.02, stable: true }, dialect))?.massG).toBe(17.02)
    expect(parseReading(lineOf({ ...display, massG: null }, dialect))?.overload).toBe(true)
  })
})

interface Heard {
  states: BenchState['state'][]
  readings: BenchReadings['readings']
  garbage: number
  sentence: string
}

describe('the bench scale over TCP', () => {
  const open: { bench?: BenchScale; standIn?: Awaited<ReturnType<typeof startStandIn>>; peer?: Server } = {}
  afterEach(async () => {
    open.bench?.close()
    await open.standIn?.stop()
    open.peer?.close()
    open.bench = open.standIn = open.peer = undefined
  })
  function listen(port: number): Heard {
    const heard: Heard = { states: [], readings: [], garbage: 0, sentence: '' }
    open.bench ??= benchScale(() => `127.0.0.1:${port}`)
    open.bench.listen({
      state: state => {
        heard.states.push(state.state)
        heard.sentence = state.sentence
      },
      readings: ({ readings, garbage }) => {
        heard.readings.push(...readings)
        heard.garbage = garbage
      },
    })
    return heard
  }
  const until = (what: () => boolean) => expect.poll(what, { timeout: 8000, interval: 15 }).toBe(true)
  const control = (path: string, method = 'POST', body?: unknown) =>
    fetch(`http://127.0.0.1:${open.standIn!.controlPort}${path}`, {
      method,
      body: body === undefined ? undefined : JSON.stringify(body),
    })
  async function peer(greet: (socket: Socket) => void): Promise<number> {
    const server = createServer(socket => {
      socket.on('error', () => socket.destroy())
      greet(socket)
    })
    open.peer = server
    await new Promise<void>(done => server.listen(0, '127.0.0.1', done))
    return (server.address() as AddressInfo).port
  }

  it('reads a part put on the stand-in until it is steady, zeroes it, and follows a change of dialect', async () => {
    open.standIn = await startStandIn({ scalePort: 0, controlPort: 0, readingsPerSecond: 50 })
    const heard = listen(open.standIn.scalePort)
    await control('/pan', 'PUT', { masses: [{ name: 'transmitter', massG: 17 }] })
    let clock = 0
    const timed = (): TimedReading[] => heard.readings.map(r => ({ ...r, atMs: clock++ * 20 }))
    await until(() => steadiness(timed(), 0.02).steady)
    expect(Math.abs(heard.readings.at(-1)!.massG! - 17.04)).toBeLessThan(0.04)
    expect(open.bench!.zero()).toBe(true)
    await until(() => Math.abs(heard.readings.at(-1)!.massG ?? 9) < 0.03)
    await control('/pan', 'PUT', { masses: [{ name: 'brick', massG: 400 }], dialect: 'commas' })
    await until(() => heard.readings.at(-1)!.overload)
    expect(heard.garbage).toBe(0)
  })
  it('says gone when the cable is pulled, and comes back by itself', async () => {
    open.standIn = await startStandIn({ scalePort: 0, controlPort: 0, readingsPerSecond: 20 })
    const heard = listen(open.standIn.scalePort)
    await until(() => heard.readings.length > 0)
    const pulled = performance.now()
    await control('/unplug')
    await until(() => heard.states.at(-1) === 'gone')
    expect(performance.now() - pulled).toBeLessThan(2000)
    heard.readings.length = 0
    await control('/plug')
    await until(() => heard.states.at(-1) === 'connected' && heard.readings.length > 0)
  })
  it('serves a second listener from the same line, and turns a second client of the scale away', async () => {
    open.standIn = await startStandIn({ scalePort: 0, controlPort: 0, readingsPerSecond: 50 })
    const [first, second] = [listen(open.standIn.scalePort), listen(open.standIn.scalePort)]
    await until(() => first.readings.length > 3 && second.readings.length > 3)
    const other = benchScale(() => `127.0.0.1:${open.standIn!.scalePort}`)
    const turnedAway: string[] = []
    const stop = other.listen({ state: state => turnedAway.push(state.state), readings: () => undefined })
    await until(() => turnedAway.includes('gone'))
    stop()
    const before = first.readings.length
    await until(() => first.readings.length > before)
  })
  it('a scale that sends nothing is called silent within two seconds', async () => {
    const heard = listen(await peer(() => undefined))
    const from = performance.now()
    await until(() => heard.states.at(-1) === 'silent')
    expect(performance.now() - from).toBeLessThan(2500)
  })
  it('a line of a megabyte and a flood of lines cost a few counted lines; good ones still come through', async () => {
    const flood = 'S S 1.00 g\r\n'.repeat(2000)
    const port = await peer(socket => {
      socket.write('x'.repeat(1_000_000))
      socket.write('\r\nS S 5.55 g\r\n')
      const pump = () => {
        while (socket.writable && socket.write(flood)) {
          /* until the other side holds back */
        }
      }
      socket.on('drain', pump)
      pump()
    })
    const heard = listen(port)
    await until(() => heard.readings.length > 200)
    expect(heard.garbage).toBeGreaterThan(0)
    const [count, from] = [heard.readings.length, performance.now()]
    await until(() => performance.now() - from > 400)
    expect(heard.readings.length - count).toBeLessThan(60 * (400 / 40) * 3)
    expect(heard.readings.every(r => r.massG === 1 || r.massG === 5.55)).toBe(true)
  })
  it('with no address set is off, and says what to do', () => {
    const off = benchScale(() => '')
    const states: BenchState[] = []
    const stop = off.listen({ state: state => states.push(state), readings: () => undefined })
    expect(off.zero()).toBe(false)
    stop()
    expect(states.every(state => state.state === 'off')).toBe(true)
  })
})
