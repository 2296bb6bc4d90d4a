import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { oncePerObject } from './once-per-object'

describe('a schema for things that never change', () => {
  const looked: object[] = []
  const schema = z.strictObject({ n: z.number() }).superRefine(value => {
    looked.push(value)
  })
  const list = z.array(oncePerObject(schema))
  it('looks at each thing once, and gives it back as it is', () => {
    const [a, b] = [{ n: 1 }, { n: 2 }]
    expect(list.parse([a, b])[0]).toBe(a)
    expect(list.parse([b, a, { n: 3 }])).toHaveLength(3)
    expect(looked).toEqual([a, b, { n: 3 }])
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
