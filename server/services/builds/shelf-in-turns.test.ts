import Database from 'better-sqlite3'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { applicationOnDisk, demoFile } from '../../testing'

let disk: ReturnType<typeof applicationOnDisk>
beforeEach(async () => {
  disk = applicationOnDisk()
  for (const name of ['marzipan', 'praline', 'nougat', 'sherbet']) {
    await disk.app.files.importBuild(demoFile(name))
    await disk.app.files.importBuild(demoFile(name))
  }
})
afterEach(() => {
  disk.app.close()
  disk.remove()
})
/** As after a start: nothing is held yet. Rows may have been changed by other hands before it. */
function afresh(sql = '') {
  disk.app.close()
  const db = new Database(disk.path)
  db.exec(sql)
  db.close()
  disk.app = disk.again()
}

describe('the shelf in turns', () => {
  it('is the shelf, and others are answered before it is', async () => {
    const whole = disk.app.builds.shelfWithUnreadable()
    expect(whole.entries).toHaveLength(8)
    afresh()
    let isThere = false
    const asked = disk.app.builds.shelfInTurns().finally(() => {
      isThere = true
    })
    let answered = 0
    const other = () => {
      if (isThere) return
      answered++
      setImmediate(other)
    }
    setImmediate(other)
    expect(await asked).toEqual(whole)
    expect(answered).toBeGreaterThan(1)
  })

  it('leaves out a build that is deleted meanwhile, and tells those that cannot be read', async () => {
    const going = disk.app.builds.shelf().find(({ id }) => id !== 'praline')!
    await disk.app.builds.rescue(going.id, 'put away')
    afresh(`UPDATE lines SET slot = 'wing' WHERE build_id = 'praline' AND position = 0`)
    const asked = disk.app.builds.shelfInTurns()
    await disk.app.builds.remove(going.id)
    const { entries, unreadable } = await asked
    expect(entries.map(({ id }) => id)).not.toContain(going.id)
    expect([entries.length, unreadable.map(({ id }) => id)]).toEqual([6, ['praline']])
  })
})
