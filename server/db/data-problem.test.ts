import { describe, expect, it } from 'vitest'
import { DataProblem, dataProblemOf } from './data-problem'

describe('trouble with the data as a whole', () => {
  it.each([
    ['SQLITE_NOTADB', 'damaged'],
    ['SQLITE_CORRUPT_VTAB', 'damaged'],
    ['SQLITE_READONLY_DIRECTORY', 'read-only'],
    ['SQLITE_CANTOPEN', 'read-only'],
    ['EROFS', 'read-only'],
    ['EACCES', 'read-only'],
    ['SQLITE_FULL', 'full'],
    ['ENOSPC', 'full'],
    ['SQLITE_BUSY_SNAPSHOT', 'in use'],
    ['SQLITE_LOCKED', 'in use'],
    ['SQLITE_IOERR_WRITE', 'gone'],
    ['ENOENT', 'gone'],
  ])('%s is “%s”, with a sentence that says what to do', (code, trouble) => {
    const problem = dataProblemOf(Object.assign(new Error('x'), { code }))
    expect(problem?.trouble).toBe(trouble)
    expect(problem?.message).toMatch(/^[A-Z][^.]+\. .+\.$/s)
  })
  it.each([
    new Error('x'),
    Object.assign(new Error('x'), { code: 'SQLITE_CONSTRAINT_CHECK' }),
    null,
    undefined,
    'text',
    { code: 7 },
  ])('%s is not', error => {
    expect(dataProblemOf(error)).toBeNull()
  })
  it('is itself', () => {
    const problem = new DataProblem('newer', 'Update it.')
    expect(dataProblemOf(problem)).toBe(problem)
  })
})
