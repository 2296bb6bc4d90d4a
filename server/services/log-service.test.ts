import { mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gunzipSync, gzipSync } from 'node:zlib'
import { afterEach, beforeEach, expect, it } from 'vitest'
import { logService } from './log-service'

let folder: string
let count = 0
const service = () => logService(join(folder, 'logs'), () => `log-${++count}`)
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'logs-'))
})
afterEach(() => {
  rmSync(folder, { recursive: true })
})

it('keeps a compressed log and gives it back to the byte, with nothing half written left beside it', async () => {
  const text = 'time,amps\n0,1\n1,2\n'
  const id = await service().keep(gzipSync(text))
  expect(gunzipSync(await service().read(id)).toString()).toBe(text)
  expect(readdirSync(join(folder, 'logs'))).toEqual([`${id}.csv.gz`])
})
it('refuses what is not compressed, and says of one that is not there that it is not', async () => {
  await expect(service().keep(Buffer.from('time,amps\n'))).rejects.toMatchObject({ code: 'invalid', field: 'log' })
  await expect(service().read('nothing')).rejects.toMatchObject({ code: 'not-found' })
})
