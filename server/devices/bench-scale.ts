import { connect, type Socket } from 'node:net'
import { LineSplitter, parseReading, type Reading } from '../../core/mass/readings'
import type { BenchReadings, BenchState } from '../../shared/schemas/bench-scale'
import { homeAddressOf } from './home-address'

/** What a listener gets: the state whenever it changes, and readings a few times a second. */
export interface BenchListener {
  state: (state: BenchState) => void
  readings: (readings: BenchReadings) => void
}

const retryMs = 400
const unreachableRetryMs = 5000
const connectTimeoutMs = 4000
/** So many lines that say nothing, and no reading among them, are no scale. */
const garbageToSay = 5
const batchMs = 40
/** A scale that sends continuously is taken for gone after this silence. */
const silentMs = 1500
/** More lines than this in a batch are not read: no scale sends so many, and the socket is held back meanwhile. */
const mostLinesInABatch = 60

/**
 * The bench scale on the network: one connection whatever the number of listeners, opened with the first and closed with
 * the last. It comes back by itself; a peer that floods or never ends a line costs a batch of lines and no more.
 */
export function benchScale(addressNow: () => string) {
  const listeners = new Set<BenchListener>()
  let socket: Socket | null = null
  let address = ''
  let state: BenchState = { state: 'off', address: '', sentence: '' }
  let waiting: (Reading & { atMs: number })[] = []
  let splitter = new LineSplitter()
  let garbage = 0
  let linesInBatch = 0
  let lastDataMs = 0
  let readingsSinceOpen = 0
  let garbageSinceOpen = 0
  let retry: ReturnType<typeof setTimeout> | null = null
  let ticker: ReturnType<typeof setInterval> | null = null

  function say(next: BenchState['state'], sentence: string) {
    if (state.state === next && state.address === address && state.sentence === sentence) return
    state = { state: next, address, sentence }
    for (const listener of listeners) listener.state(state)
  }

  function open() {
    retry = null
    address = addressNow()
    if (address === '') return say('off', 'No scale is set. Give its address in Settings, or type what it shows.')
    if (state.state !== 'gone') say('connecting', `Connecting to the scale at ${address} …`)
    void connectTo(address)
  }

  async function connectTo(wanted: string) {
    const colon = wanted.lastIndexOf(':')
    const host = await homeAddressOf(wanted.slice(0, colon).replace(/^\[|\]$/g, ''))
    if (address !== wanted || listeners.size === 0 || socket) return
    if (host === null) {
      say('gone', `${wanted} is not an address in the network at home, so it is not called.`)
      retry = setTimeout(open, unreachableRetryMs)
      return
    }
    const fresh = connect({ host, port: Number(wanted.slice(colon + 1)), noDelay: true })
    socket = fresh
    splitter = new LineSplitter()
    readingsSinceOpen = 0
    garbageSinceOpen = 0
    fresh.setEncoding('latin1')
    fresh.setTimeout(connectTimeoutMs, () => {
      if (fresh.connecting) fresh.destroy()
    })
    fresh.on('connect', () => {
      lastDataMs = performance.now()
    })
    fresh.on('data', (chunk: string) => takeIn(fresh, chunk))
    fresh.on('error', () => fresh.destroy())
    fresh.on('close', () => {
      if (socket !== fresh) return
      socket = null
      if (listeners.size === 0) return
      say('gone', `The scale at ${address} is gone. It is looked for all the time.`)
      retry = setTimeout(open, retryMs)
    })
  }

  function takeIn(from: Socket, chunk: string) {
    lastDataMs = performance.now()
    for (const line of splitter.push(chunk)) {
      if (++linesInBatch > mostLinesInABatch) {
        garbage++
        continue
      }
      const reading = parseReading(line)
      if (reading) {
        readingsSinceOpen++
        waiting.push({ ...reading, atMs: lastDataMs })
      } else {
        garbage++
        garbageSinceOpen++
      }
    }
    if (readingsSinceOpen > 0) say('connected', `Scale at ${address}`)
    else if (garbageSinceOpen >= garbageToSay || splitter.tooLong > 0)
      say(
        'not understood',
        `Something comes from ${address}, but nothing that can be read as grams. Is the rate (baud) ` +
          `right, and the scale set to a dialect such as “S S 17.02 g” or “ST,GS,+ 17.02g”?`,
      )
    if (linesInBatch > mostLinesInABatch) from.pause()
  }

  function tick() {
    const now = performance.now()
    linesInBatch = 0
    socket?.resume()
    if (address !== addressNow()) return reopen()
    if (
      socket &&
      !socket.connecting &&
      ['connected', 'connecting', 'gone'].includes(state.state) &&
      now - lastDataMs > silentMs
    )
      say('silent', `The scale at ${address} sends nothing. Is it switched on, and set to send all the time?`)
    if (waiting.length === 0) return
    const readings = waiting.map(({ atMs, ...reading }) => ({ ...reading, ageMs: now - atMs }))
    waiting = []
    for (const listener of listeners) listener.readings({ readings, garbage: garbage + splitter.tooLong })
  }

  function close() {
    if (retry) clearTimeout(retry)
    if (ticker) clearInterval(ticker)
    retry = ticker = null
    const open = socket
    socket = null
    open?.destroy()
    waiting = []
    state = { state: 'off', address: '', sentence: '' }
  }

  function reopen() {
    close()
    garbage = 0
    if (listeners.size === 0) return
    ticker = setInterval(tick, batchMs)
    open()
  }

  return {
    /** Begins to listen; returns how to stop. */
    listen(listener: BenchListener): () => void {
      listeners.add(listener)
      if (listeners.size === 1) reopen()
      else listener.state(state)
      return () => {
        listeners.delete(listener)
        if (listeners.size === 0) close()
      }
    },
    /** Presses the scale's zero key. Returns false when no scale is connected. */
    zero(): boolean {
      if (!socket?.writable || state.state !== 'connected') return false
      socket.write('Z\r\n')
      return true
    },
    close() {
      listeners.clear()
      close()
    },
  }
}
export type BenchScale = ReturnType<typeof benchScale>
