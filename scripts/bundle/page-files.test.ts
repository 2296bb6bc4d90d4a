import { describe, expect, it } from 'vitest'
import {
  chunksByPage,
  filesOfShelf,
  keepThoseOfEveryPage,
  modulesOfSeveral,
  modulesOfShelf,
  type Chunks,
  type Modules,
} from './page-files'

const chunks = (): Chunks => ({
  entry: { file: 'e.js', isEntry: true, imports: ['words'], css: ['e.css'] },
  words: { file: 'w.js' },
  'e.css': { file: 'e.css' },
  shelf: { file: 's.js', name: 'shelf', imports: ['entry', 'sums'], css: ['s.css'] },
  sums: { file: 'u.js', imports: ['words'] },
  fit: { file: 'f.js', imports: ['entry', 'shelf'] },
  'x/serif-latin-wght-normal.woff2': { file: 'serif.woff2' },
  'x/serif-latin-ext-wght-normal.woff2': { file: 'serif-ext.woff2' },
})

describe('the files of the shelf', () => {
  it('are its own and what they need beyond every page, with the letters of the first picture', () => {
    expect(filesOfShelf(chunks())).toEqual(['s.js', 's.css', 'u.js', 'serif.woff2'])
  })
  it('are none where the shelf is no file of its own', () => {
    const without = chunks()
    delete without.shelf
    expect(() => filesOfShelf(without)).toThrow('no file of its own')
  })
  it('the server knows those of every page alone', () => {
    const known = chunks()
    keepThoseOfEveryPage(known)
    expect(Object.keys(known).sort()).toEqual(['e.css', 'entry', 'words'])
    expect(known.entry!.prefetch).toBe(false)
  })
})

describe('the modules of pages', () => {
  const graph: Record<string, readonly string[]> = {
    '/entry.ts': ['/app/app.vue'],
    '/app/app.vue': ['/core/words.ts', '/app/pages/index.vue?macro=true'],
    '/app/pages/index.vue?macro=true': ['/core/only-asked.ts'],
    '/app/pages/index.vue': ['/core/words.ts', '/app/card.vue'],
    '/app/card.vue': ['/core/sums.ts'],
    '/core/sums.ts': ['/app/card.vue'],
    '/core/words.ts': [],
    '/core/only-asked.ts': [],
    '/app/pages/fit.vue': ['/core/fit.ts', '/core/sheet.ts'],
    '/app/pages/packs.vue': ['/core/sheet.ts', '/core/packs.ts', '/core/sums.ts'],
    '/core/fit.ts': ['/core/words.ts'],
    '/core/packs.ts': [],
    '/core/sheet.ts': ['/core/rows.ts', '/core/words.ts'],
    '/core/rows.ts': ['/app/card.vue'],
    '/app/dialog.vue': ['/core/packs.ts'],
    '/demo/builds/one.json': [],
  }
  const modules: Modules = {
    getModuleIds: () => Object.keys(graph)[Symbol.iterator]() as IterableIterator<string>,
    getModuleInfo: id => (graph[id] ? { importedIds: graph[id], isEntry: id === '/entry.ts' } : null),
  }
  it('of the shelf are what its page needs and not every page', () => {
    expect([...modulesOfShelf(modules)].sort()).toEqual(['/app/card.vue', '/app/pages/index.vue', '/core/sums.ts'])
  })
  it('of several are what more than one page needs, beyond every page and the shelf', () => {
    expect([...modulesOfSeveral(modules)].sort()).toEqual(['/core/rows.ts', '/core/sheet.ts'])
  })
  it('go into the file of the shelf or of several, the sample builds into theirs, all others where they belong', () => {
    const chunkOf = chunksByPage()
    const named = Object.keys(graph).flatMap(id => {
      const file = chunkOf(id, modules)
      return file ? [`${file}: ${id}`] : []
    })
    expect(named.sort()).toEqual([
      'sample: /demo/builds/one.json',
      'several: /core/rows.ts',
      'several: /core/sheet.ts',
      'shelf: /app/card.vue',
      'shelf: /app/pages/index.vue',
      'shelf: /core/sums.ts',
    ])
  })
  it('of several need nothing that is not there with them: no page waits for another’s file', () => {
    const chunkOf = chunksByPage()
    for (const id of modulesOfSeveral(modules))
      for (const next of graph[id]!)
        expect(chunkOf(next, modules) ?? next).toMatch(/^(?:several|shelf|\/core\/words.ts)$/)
  })
})
