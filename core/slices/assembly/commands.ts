import { circleWords, assemblyOf, recordOf, whyBlocked, sequenceOf } from '../../making/assembly'
import type { Assembly, StepRecord } from '../../model/data'
import type { Build } from '../../model/ledger'
import { CommandRefused } from '../contract'
import { mostRecords } from './schema'

/** Order, school and own steps; refused where steps would wait for each other in a circle. */
export function setAssembly(build: Build, fields: Partial<Omit<Assembly, 'records'>>): Build {
  const assembly = { ...assemblyOf(build), ...fields }
  if (new Set(assembly.own.map(step => step.id)).size !== assembly.own.length)
    throw new CommandRefused('Two steps of your own have the same id.', 'own')
  const sorted = sequenceOf(build, build.flies, assembly)
  if ('cycle' in sorted) throw new CommandRefused(circleWords(sorted.cycle), 'own')
  return { ...build, assembly }
}

/** Changes the record of a step. A tick is refused while a failed test stands before the step; notes and tests are not. */
export function recordStep(build: Build, stepId: string, fields: Partial<Omit<StepRecord, 'stepId'>>): Build {
  const assembly = assemblyOf(build)
  const record: StepRecord = { ...recordOf(assembly, stepId), ...fields }
  const sorted = sequenceOf(build, build.flies, assembly)
  const steps = 'steps' in sorted ? sorted.steps : []
  const step = steps.find(s => s.id === stepId)
  const ticked = record.doneAt !== null && recordOf(assembly, stepId).doneAt === null
  const why = step && ticked ? whyBlocked(steps, assembly, step) : ''
  if (why) throw new CommandRefused(why, 'doneAt')
  if (record.overriddenWhy !== '' && record.test !== 'failed')
    throw new CommandRefused('Only a failed test can be gone past.', 'overriddenWhy')
  if (record.doneAt !== null && record.test === 'failed' && record.overriddenWhy === '')
    throw new CommandRefused('Its test failed: test it again, or go past it with a reason.', 'test')
  const exists = assembly.records.some(r => r.stepId === stepId)
  if (!exists && assembly.records.length >= mostRecords)
    throw new CommandRefused(`A build keeps records of at most ${mostRecords} steps.`, 'stepId')
  const records = exists ? assembly.records.map(r => (r.stepId === stepId ? record : r)) : [...assembly.records, record]
  return { ...build, assembly: { ...assembly, records } }
}
