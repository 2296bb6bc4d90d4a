import { counted } from '#core/text/display'
import type { Columns, LogFigures, LoggedResistance, NoResistance, Stretch } from '#core/aircraft/telemetry'
import { mostLogBytes } from '#shared/files/largest'
import type { Curves, LogRead, TelemetryReply, TelemetryRequest } from '~/workers/telemetry.worker'

/** Columns without the wrappers of the interface, which a worker cannot take. */
const plain = (columns: Columns): Columns =>
  Object.fromEntries(Object.entries(columns).map(([quantity, { index, unit }]) => [quantity, { index, unit }]))

/** A log of a flight, read and worked out in a worker, so that the page goes on meanwhile. */
export function useTelemetry(cells: () => number) {
  const file = shallowRef<Blob | null>(null)
  const name = ref('')
  const read = shallowRef<LogRead | null>(null)
  const progress = shallowRef<{ done: number; of: number } | null>(null)
  const problem = ref('')
  const stretch = shallowRef<Stretch | null>(null)
  const figures = shallowRef<LogFigures | null>(null)
  const resistance = shallowRef<LoggedResistance | NoResistance | null>(null)
  const view = shallowRef<Stretch | null>(null)
  const curves = shallowRef<Curves>({})
  const whole = shallowRef<Curves>({})
  /** Columns as they were corrected, by the heads of the log: the next one like it is read so. */
  const mappings = useLocalStorage<Record<string, Columns>>('log-columns', {})

  let worker: Worker | null = null
  function ask(request: TelemetryRequest) {
    if (!worker) {
      worker = new Worker(new URL('../workers/telemetry.worker.ts', import.meta.url), { type: 'module' })
      worker.addEventListener('message', take)
    }
    worker.postMessage(
      request.kind === 'read' ? { ...request, columns: request.columns && plain(request.columns) } : request,
    )
  }
  const keyOf = (heads: readonly string[]) => heads.join('\u0001')
  /** Columns that were asked for are taken as they are; else those remembered for heads like these. */
  let isAsked = false

  function take({ data }: MessageEvent<TelemetryReply>) {
    if (data.kind === 'progress') progress.value = { done: data.done, of: data.of }
    else if (data.kind === 'problem') {
      problem.value = data.problem
      progress.value = null
    } else if (data.kind === 'read') took(data.read)
    else if (data.kind === 'stretch') {
      figures.value = data.figures
      resistance.value = data.resistance
    } else {
      const isWhole = data.stretch.fromS === 0 && data.stretch.toS === read.value?.endS
      if (isWhole) whole.value = data.curves
      if (view.value && data.stretch.fromS === view.value.fromS && data.stretch.toS === view.value.toS)
        curves.value = data.curves
    }
  }
  function took(result: LogRead) {
    const remembered = mappings.value[keyOf(result.heads.heads)]
    if (!isAsked && remembered && file.value) {
      isAsked = true
      ask({ kind: 'read', file: file.value, cells: cells(), columns: remembered })
      return
    }
    progress.value = null
    problem.value = ''
    read.value = result
    const all: Stretch = { fromS: 0, toS: result.endS }
    const [first] = [...result.stretches].sort((a, b) => b.toS - b.fromS - (a.toS - a.fromS))
    look(all)
    choose(first ?? all)
  }
  const buckets = 420
  /** Looks closer at a part of the log. */
  function look(at: Stretch) {
    view.value = at
    ask({ kind: 'curves', stretch: at, buckets })
  }
  /** What a stretch adds up to. */
  function choose(of: Stretch) {
    stretch.value = of
    ask({ kind: 'stretch', stretch: of })
  }
  function reset() {
    read.value = null
    figures.value = resistance.value = stretch.value = view.value = null
    curves.value = whole.value = {}
    problem.value = ''
    progress.value = null
  }
  /** Reads a log. One that is too large is refused before it is read. */
  function open(log: Blob, called: string, columns: Columns | null = null) {
    reset()
    if (log.size > mostLogBytes) {
      problem.value =
        `${called} has ${counted(Math.round(log.size / 1e6))} MB; at most ${mostLogBytes / 1e6} MB are read. ` +
        'Cut it to the one flight, or leave columns out, and bring it again. Nothing was read.'
      return
    }
    if (log.size === 0) {
      problem.value = `${called} is empty: there is nothing to read.`
      return
    }
    file.value = log
    name.value = called
    isAsked = columns !== null
    progress.value = { done: 0, of: log.size }
    ask({ kind: 'read', file: log, cells: cells(), columns })
  }
  /** Reads the log again with its columns corrected, and remembers them for logs with the same heads. */
  function correct(columns: Columns) {
    if (!file.value || !read.value) return
    mappings.value = { ...mappings.value, [keyOf(read.value.heads.heads)]: columns }
    open(file.value, name.value, columns)
  }
  function stop() {
    worker?.terminate()
    worker = null
    reset()
    problem.value = 'Stopped: nothing was taken in.'
  }
  tryOnScopeDispose(() => worker?.terminate())
  return {
    ...{ file, name, read, progress, problem, stretch, figures, resistance, view, curves, whole },
    ...{ open, correct, look, choose, stop },
  }
}
export type Telemetry = ReturnType<typeof useTelemetry>
