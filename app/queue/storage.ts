import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { EditStorage, QueuedEdit, SetAsideEdit } from './types'

/** Who may send the edits of a document, and until when. */
export interface Lease {
  readonly name: string
  readonly holder: string
  readonly untilMs: number
}

interface Schema extends DBSchema {
  edits: { key: string; value: QueuedEdit; indexes: { document: string } }
  asides: { key: string; value: SetAsideEdit }
  leases: { key: string; value: Lease }
}
export type EditDatabase = IDBPDatabase<Schema>

/** Opens the browser’s database of edits that wait. */
export function openEditDatabase(name = 'jolly-gram-edits'): Promise<EditDatabase> {
  return openDB<Schema>(name, 1, {
    upgrade(db) {
      db.createObjectStore('edits', { keyPath: 'key' }).createIndex('document', 'document')
      db.createObjectStore('asides', { keyPath: 'key' })
      db.createObjectStore('leases', { keyPath: 'name' })
    },
    // A newer page wants another shape: let it have the database, this page keeps what it holds in memory.
    blocking(_current, _blocked, event) {
      ;(event.target as IDBDatabase).close()
    },
  })
}

const inOrder = <T extends QueuedEdit>(edits: T[]): T[] => edits.sort((a, b) => a.order - b.order)

/** Edits in the browser’s database: they outlive the tab, the browser and the machine’s power. */
export function databaseStorage(opened: Promise<EditDatabase>): EditStorage {
  const strict = { durability: 'strict' } as const
  return {
    async all() {
      return inOrder(await (await opened).getAll('edits'))
    },
    async of(document) {
      return inOrder(await (await opened).getAllFromIndex('edits', 'document', document))
    },
    async put(edits) {
      const work = (await opened).transaction('edits', 'readwrite', strict)
      const written = edits.map(edit => work.store.put(edit))
      // Asked at once: a page that goes before it hears of the writes has them carried out all the same.
      work.commit()
      await Promise.all([...written, work.done])
    },
    async remove(keys) {
      const work = (await opened).transaction('edits', 'readwrite')
      await Promise.all([...keys.map(key => work.store.delete(key)), work.done])
    },
    async setAside(edit) {
      const work = (await opened).transaction(['edits', 'asides'], 'readwrite', strict)
      await Promise.all([work.objectStore('edits').delete(edit.key), work.objectStore('asides').put(edit), work.done])
    },
    async asides() {
      return inOrder(await (await opened).getAll('asides'))
    },
    async removeAside(key) {
      await (await opened).delete('asides', key)
    },
    async putBack(edit) {
      const work = (await opened).transaction(['edits', 'asides'], 'readwrite', strict)
      await Promise.all([work.objectStore('asides').delete(edit.key), work.objectStore('edits').put(edit), work.done])
    },
  }
}

/** Edits in this tab alone, for a browser that keeps nothing. */
export function memoryStorage(): EditStorage {
  const edits = new Map<string, QueuedEdit>()
  const asides = new Map<string, SetAsideEdit>()
  return {
    all: async () => inOrder([...edits.values()]),
    of: async document => inOrder([...edits.values()].filter(edit => edit.document === document)),
    put: async many => {
      for (const edit of many) edits.set(edit.key, edit)
    },
    remove: async keys => {
      for (const key of keys) edits.delete(key)
    },
    setAside: async edit => {
      edits.delete(edit.key)
      asides.set(edit.key, edit)
    },
    asides: async () => inOrder([...asides.values()]),
    removeAside: async key => {
      asides.delete(key)
    },
    putBack: async edit => {
      asides.delete(edit.key)
      edits.set(edit.key, edit)
    },
  }
}
