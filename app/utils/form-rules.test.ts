import { describe, expect, it } from 'vitest'
import { ownCardSchema } from '#shared/schemas/rule-card'
import { nameSchema } from '#core/text/schemas'
import { problemsOf, rulesFrom } from './form-rules'

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
