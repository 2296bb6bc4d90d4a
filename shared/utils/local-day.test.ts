import { afterEach, describe, expect, it } from 'vitest'
import { localDay } from './local-day'

const zone = process.env.TZ
afterEach(() => {
  process.env.TZ = zone
})

describe('the day it is', () => {
  it.each([
    ['Pacific/Auckland', '2026-11-28'],
    ['America/Los_Angeles', '2026-11-27'],
    ['UTC', '2026-11-27'],
  ])('in %s is %s', (place, day) => {
    process.env.TZ = place
    expect(localDay(new Date('2026-11-27T12:30:00Z'))).toBe(day)
  })
})
