import { Worker } from 'node:worker_threads'
import { DomainProblem } from '../problems'
import type { ReportJob, ReportResult } from '../workers/report-job'

/** Works reports out; rejects with a sentence where that takes too long. */
export interface ReportRunner {
  readonly run: <Job extends ReportJob>(job: Job) => Promise<ReportResult<Job>>
  readonly close: () => void
}

/** In this very thread: for tests, and where there is no worker. Where there is one, none of it is read at the start. */
export const inThisThread: ReportRunner = {
  run: async job => (await import('../workers/report-job')).doReportJob(job),
  close: () => undefined,
}

/** A report is done in this time, or refused. */
const mostMs = 10_000

function tooMuch(job: ReportJob): DomainProblem {
  const packs = job.build.lines.filter(line => line.slot === 'pack').length
  return new DomainProblem(
    'too-much',
    `${job.build.setups.length} set-ups with ${packs} packs are more than can be worked out in ` +
      `${mostMs / 1000} seconds. Mark the loadouts you never fly, or take off packs you do not use.`,
  )
}

/**
 * In a thread of its own, so that everybody else is answered meanwhile: one job after another, each of them for ten seconds
 * at most, waiting included. A thread that takes longer is ended.
 */
export function inWorkerThread(script: URL): ReportRunner {
  let worker: Worker | null = null
  let last: Promise<unknown> = Promise.resolve()
  let count = 0

  function workOut<Job extends ReportJob>(job: Job, untilMs: number): Promise<ReportResult<Job>> {
    const left = untilMs - performance.now()
    if (left <= 0) return Promise.reject(tooMuch(job))
    const thread = (worker ??= new Worker(script))
    thread.unref()
    const id = ++count
    return new Promise((done, fail) => {
      const giveUp = (reason: Error) => {
        stop()
        if (worker === thread) worker = null
        void thread.terminate()
        fail(reason)
      }
      const timer = setTimeout(() => giveUp(tooMuch(job)), left)
      const broken = (error: Error) => giveUp(error)
      const heard = (answer: { id: number; result?: ReportResult<Job>; problem?: string }) => {
        if (answer.id !== id) return
        stop()
        if (answer.problem === undefined) done(answer.result as ReportResult<Job>)
        else fail(new Error(answer.problem))
      }
      function stop() {
        clearTimeout(timer)
        thread.off('message', heard)
        thread.off('error', broken)
      }
      thread.on('message', heard)
      thread.on('error', broken)
      thread.postMessage({ id, job })
    })
  }

  return {
    run(job) {
      const untilMs = performance.now() + mostMs
      const turn = last.catch(() => undefined).then(() => workOut(job, untilMs))
      last = turn
      return turn
    },
    close() {
      void worker?.terminate()
    },
  }
}
