import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import type { OwnStep } from '../../core/making/assembly'
import { applicationOnDisk } from '../testing'

let disk: ReturnType<typeof applicationOnDisk>
beforeEach(() => {
  disk = applicationOnDisk()
})
afterEach(() => {
  disk.app.close()
  disk.remove()
})
const own = (id: string, after: string[]): OwnStep => ({
  id,
  title: `Step ${id}`,
  words: 'as ever',
  phase: 'close',
  after,
  minutes: 4,
})

describe('templates', () => {
  it('are kept whole, by name, over a restart; changed and deleted', () => {
    const mine = { id: 'mine', name: 'my way', order: ['video', 'camera', 'own-a'], own: [own('own-a', ['camera'])] }
    disk.app.templates.put(mine)
    disk.app.templates.put({ id: 'b', name: 'a quick one', order: [], own: [] })
    const afterwards = disk.again()
    expect(afterwards.templates.all().map(t => t.name)).toEqual(['a quick one', 'my way'])
    expect(afterwards.templates.all()[1]).toEqual(mine)
    afterwards.close()
    disk.app.templates.put({ ...mine, name: 'my new way' })
    disk.app.templates.remove('b')
    expect(disk.app.templates.all().map(t => t.name)).toEqual(['my new way'])
    expect(() => {
      disk.app.templates.remove('b')
    }).toThrow('There is no such template.')
  })
  it('whose steps wait in a circle are refused, the old one stays; waiting for what is not there does no harm', () => {
    disk.app.templates.put({ id: 'mine', name: 'my way', order: [], own: [own('a', ['nowhere'])] })
    expect(() => {
      disk.app.templates.put({ id: 'mine', name: 'my way', order: [], own: [own('a', ['b']), own('b', ['a'])] })
    }).toThrow('These wait for each other in a circle: “Step a” waits for “Step b” waits for “Step a”.')
    expect(disk.app.templates.all()[0]!.own).toHaveLength(1)
  })
  it('are at most fifty', () => {
    for (let i = 0; i < 50; i++) disk.app.templates.put({ id: `t${i}`, name: `way ${i}`, order: [], own: [] })
    expect(() => {
      disk.app.templates.put({ id: 'one-more', name: 'one more', order: [], own: [] })
    }).toThrow('At most 50 templates')
    expect(() => {
      disk.app.templates.put({ id: 't3', name: 'renamed', order: [], own: [] })
    }).not.toThrow()
  })
})
