import { parentPort } from 'node:worker_threads'
import { doReportJob, type ReportJob } from './report-job'

parentPort?.on('message', ({ id, job }: { id: number; job: ReportJob }) => {
  try {
    parentPort!.postMessage({ id, result: doReportJob(job) })
  } catch (error) {
    parentPort!.postMessage({ id, problem: error instanceof Error ? error.message : String(error) })
  }
})
