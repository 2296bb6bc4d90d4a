import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { oncePerObject } from './once-per-object'

describe('a schema for things that never change', () => {
  const looked: object[] = []
  const schema = z.strictObject({ n: z.number(), m: z.number().optional() }).superRefine(value => {
    looked.push(value)
  })
  const list = z.array(oncePerObject(schema))
  it('reads each thing once', () => {
    const [a, b] = [{ n: 1 }, { n: 2 }]
    const [first] = list.parse([a, b])
    expect(list.parse([b, a, { n: 3 }])).toEqual([b, a, { n: 3 }])
    expect(list.parse([a])[0]).toBe(first)
    expect(looked).toEqual([a, b, { n: 3 }])
  })
  it('gives the fields in the order of the schema, however they came', () => {
    expect(JSON.stringify(list.parse([{ m: 2, n: 1 }]))).toBe('[{"n":1,"m":2}]')
  })
  it('says each time where what is wrong is wrong', () => {
    const wrong = { n: 'one' }
    for (let i = 0; i < 2; i++) {
      const parsed = list.safeParse([{ n: 1 }, wrong])
      expect(parsed.error?.issues[0]).toMatchObject({ path: [1, 'n'] })
    }
    for (const nothing of [null, undefined, 7]) expect(list.safeParse([nothing]).success).toBe(false)
  })
})
