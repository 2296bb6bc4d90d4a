import { createSharedComposable } from '@vueuse/core'
import { LineSplitter, parseReading, steadiness, type Reading, type TimedReading } from '#core/mass/readings'
import type { BenchReadings, BenchState } from '#shared/schemas/bench-scale'

/** How far back the trace shows, milliseconds. */
export const traceMs = 10_000

interface SerialPort {
  open: (options: { baudRate: number }) => Promise<void>
  readable: ReadableStream<Uint8Array> | null
  writable: WritableStream<Uint8Array> | null
  close: () => Promise<void>
}
interface Serial {
  requestPort: () => Promise<SerialPort>
}

function benchScale() {
  const scales = useScalesStore()
  const settings = useSettingsStore()
  const state = shallowRef<BenchState>({ state: 'connecting', address: '', sentence: 'Looking for the scale …' })
  const readings = shallowRef<readonly TimedReading[]>([])
  const garbage = ref(0)
  /** No readings come this moment: what stands there is not what lies on the pan now. */
  const isPaused = ref(false)
  const serialPort = shallowRef<SerialPort | null>(null)
  const serial = (navigator as Navigator & { serial?: Serial }).serial

  /** Takes readings in; keeps ten seconds of them, so that memory does not grow with the stream. */
  function take(coming: readonly (Reading & { ageMs: number })[]) {
    const now = performance.now()
    const kept = readings.value.filter(reading => reading.atMs > now - traceMs)
    readings.value = [...kept, ...coming.map(({ ageMs, ...reading }) => ({ ...reading, atMs: now - ageMs }))]
  }

  useEventStream(
    () => (serialPort.value ? null : '/api/bench-scale/stream'),
    {
      state(data) {
        const next = JSON.parse(data) as BenchState
        // That the cable was pulled stays said while there is no other scale.
        if (next.state === 'off' && state.value.address === 'serial') return
        state.value = next
        if (state.value.state !== 'connected') readings.value = []
      },
      readings(data) {
        const message = JSON.parse(data) as BenchReadings
        garbage.value = message.garbage
        take(message.readings)
      },
    },
    {
      paused: () => {
        isPaused.value = true
      },
      back: () => {
        isPaused.value = false
      },
      lost() {
        isPaused.value = false
        state.value = {
          state: 'gone',
          address: '',
          sentence: 'The server does not answer; readings come again when it does.',
        }
        readings.value = []
      },
    },
  )

  /** Opens a scale on a serial cable, asked for by a click. */
  async function openSerial(baudRate: number): Promise<string> {
    if (!serial) return 'This browser cannot open serial devices.'
    try {
      const port = await serial.requestPort()
      await port.open({ baudRate })
      serialPort.value = port
      state.value = { state: 'connected', address: 'serial', sentence: 'Scale on the serial cable' }
      void readSerial(port)
      return ''
    } catch (error) {
      return error instanceof Error && error.name === 'NotFoundError'
        ? ''
        : `The serial scale could not be opened: ${sentenceOf(error)}`
    }
  }
  async function readSerial(port: SerialPort) {
    const splitter = new LineSplitter()
    const decoder = new TextDecoder('latin1')
    const reader = port.readable?.getReader()
    try {
      for (let chunk = await reader?.read(); chunk && !chunk.done; chunk = await reader!.read()) {
        for (const line of splitter.push(decoder.decode(chunk.value, { stream: true }))) {
          const reading = parseReading(line)
          if (reading) take([{ ...reading, ageMs: 0 }])
          else garbage.value++
        }
      }
    } catch {
      /* the cable was pulled: said below */
    }
    readings.value = []
    state.value = {
      state: 'gone',
      address: 'serial',
      sentence: 'The serial scale is gone. Open it again when it is back.',
    }
    serialPort.value = null
  }
  async function zero(): Promise<boolean> {
    const writer = serialPort.value?.writable?.getWriter()
    if (!writer) return scales.zero()
    await writer.write(new TextEncoder().encode('Z\r\n'))
    writer.releaseLock()
    return true
  }

  watch(
    () => settings.settings.benchScale,
    () => {
      readings.value = []
    },
  )
  onScopeDispose(() => {
    void serialPort.value?.close().catch(() => undefined)
  })

  const live = computed(() => state.value.state === 'connected' && readings.value.length > 0)
  const rest = computed(() => {
    const now = steadiness(readings.value, scales.current?.resolutionG ?? 0.01)
    return isPaused.value ? { ...now, steady: false, reason: 'No readings come this moment.' } : now
  })
  return {
    state,
    readings,
    garbage,
    live,
    rest,
    canOpenSerial: serial !== undefined,
    onSerial: computed(() => serialPort.value !== null),
    openSerial,
    zero,
  }
}

/** The scale on the bench, whichever way it is reached; one stream for everybody on the page, closed with the last. */
export const useBenchScale = createSharedComposable(benchScale)
