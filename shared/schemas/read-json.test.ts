import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readBuildFile } from './build-file'
import { readJson } from './read-json'

describe('data from JSON', () => {
  it.each(['{"a":"\\ud83d"}', '{"a":["x",{"b":"\\uDE00\\uD83D"}]}', '"\\u0000"', '{"\\ud800":"\\ud800"}'])(
    '%s is not taken',
    text => {
      expect(readJson(text)).toMatchObject({ problem: expect.stringContaining('half of a character') })
      expect(readBuildFile(text)).toMatchObject({ problem: expect.stringContaining('half of a character') })
    },
  )
  it('a whole character written in two escapes is', () => expect(readJson('"\\ud83d\\ude00"')).toEqual({ data: '😀' }))
  it('is what it is for every text that can be kept', () => {
    fc.assert(
      fc.property(
        fc.jsonValue().filter(value => !JSON.stringify(value).includes('\\u')),
        value => {
          expect(readJson(JSON.stringify(value))).toEqual({ data: JSON.parse(JSON.stringify(value)) as unknown })
        },
      ),
    )
  })
  it('that is none is said', () =>
    expect(readJson('{')).toEqual({ code: 'no JSON', problem: 'The request is not JSON.' }))
})
