import { describe, expect, it } from 'vitest'
import { ownCardSchema } from '#shared/schemas/rule-card'
import { nameSchema } from '#core/text/schemas'
import { referenceFieldsSchema } from '#shared/schemas/scales'
import { fieldAmong, fieldsBy, problemsOf, rulesFrom } from './form-rules'

/** What the validator of a rule says. */
const saidBy = (rule: unknown) => {
  let said: Error | undefined | 'nothing' = 'nothing'
  const { validator } = rule as { validator: (rule: unknown, value: unknown, done: (error?: Error) => void) => void }
  validator(null, null, error => {
    said = error
  })
  return said === 'nothing' ? 'nothing' : ((said as Error | undefined)?.message ?? '')
}

describe('rules of a form', () => {
  it('say the schema’s own first sentence under the field it is about', () => {
    expect(problemsOf(nameSchema('The build’s name'), '', 'name')).toEqual({
      name: 'The build’s name cannot be empty.',
    })
    expect(problemsOf(nameSchema('The build’s name'), 'Pebble', 'name')).toEqual({})
    const problems = problemsOf(ownCardSchema, { place: '', limit: { value: -5, unit: 'g' } })
    expect(problems.limit).toBe('The limit must be above zero.')
    expect(Object.keys(problems)).toContain('place')
  })

  it('ask the whole again each time, and tell each field only what concerns it', () => {
    let problems: Record<string, string> = { mass: 'too heavy' }
    const rules = rulesFrom(['name', 'mass'], () => problems)
    expect([saidBy(rules.name), saidBy(rules.mass)]).toEqual(['', 'too heavy'])
    problems = { name: 'no name' }
    expect([saidBy(rules.name), saidBy(rules.mass)]).toEqual(['no name', ''])
  })
})

describe('a form read by its schema', () => {
  const read = (massG: unknown, toleranceG: unknown, name = 'brass') =>
    fieldsBy(referenceFieldsSchema, { name, massG, toleranceG, coin: false })

  it('comes to its value where all of it is understood', () => {
    expect(read(100, 0.02)).toEqual({ value: { name: 'brass', massG: 100, toleranceG: 0.02, coin: false } })
  })

  it('says of what was not understood why, and of the rest what the schema says', () => {
    expect(read({ problem: '“x” is not a number.' }, 200, '')).toEqual({
      problems: {
        name: 'The reference’s name cannot be empty.',
        massG: '“x” is not a number.',
        toleranceG: 'A tolerance of over 100 g is no reference.',
      },
    })
  })

  it('finds the field the server speaks of by its name, its part or its name without the unit', () => {
    const keys = ['name', 'mass', 'limit']
    expect(fieldAmong(keys, 'name')).toBe('name')
    expect(fieldAmong(keys, 'reference.massG')).toBe('mass')
    expect(fieldAmong(keys, 'limit.value')).toBe('limit')
    expect([fieldAmong(keys, 'minutes'), fieldAmong(keys, undefined)]).toEqual([null, null])
  })
})
