/** Which files pages come in: each file costs a way to the server, so what is needed together comes together. */

interface Chunk {
  file: string
  name?: string
  isEntry?: boolean
  imports?: string[]
  css?: string[]
  prefetch?: boolean
}
/** The files a build has made, by the module each begins with. */
export type Chunks = Record<string, Chunk>

function reached(chunks: Chunks, keys: readonly string[], seen = new Set<string>()): Set<string> {
  for (const key of keys) {
    if (seen.has(key)) continue
    seen.add(key)
    reached(chunks, chunks[key]?.imports ?? [], seen)
  }
  return seen
}
const ofEveryPage = (chunks: Chunks) =>
  reached(
    chunks,
    Object.keys(chunks).filter(key => chunks[key]!.isEntry),
  )

/**
 * The scripts and styles of the shelf that do not come with every page, and the letters most words are written in.
 * Throws where the shelf is no file of its own.
 */
export function filesOfShelf(chunks: Chunks): string[] {
  const keys = Object.keys(chunks)
  const shelf = keys.find(key => chunks[key]!.name === 'shelf')
  if (!shelf) throw new Error('The shelf is no file of its own')
  const every = ofEveryPage(chunks)
  const own = [...reached(chunks, [shelf])].filter(key => !every.has(key)).map(key => chunks[key]!)
  const letters = keys.filter(key => /-latin-\w+-normal\.woff2$/.test(key))
  return [...own.flatMap(({ file, css = [] }) => [file, ...css]), ...letters.map(key => chunks[key]!.file)]
}

/** Pages are made in the browser: the server names the files of every page and no others, and has no need to know them. */
export function keepThoseOfEveryPage(chunks: Chunks): void {
  const every = ofEveryPage(chunks)
  const styles = new Set([...every].flatMap(key => chunks[key]!.css ?? []))
  for (const key of Object.keys(chunks)) {
    if (every.has(key) || styles.has(chunks[key]!.file)) chunks[key]!.prefetch = false
    else Reflect.deleteProperty(chunks, key)
  }
}

/** What a bundler tells of the modules it puts together. */
export interface Modules {
  readonly getModuleInfo: (id: string) => { readonly importedIds: readonly string[]; readonly isEntry: boolean } | null
  readonly getModuleIds: () => IterableIterator<string>
}
function neededBy(id: string, modules: Modules, seen = new Set<string>()): Set<string> {
  // Of a page that is only asked what its address means, nothing else is taken.
  if (seen.has(id) || id.includes('?macro=true')) return seen
  seen.add(id)
  for (const next of modules.getModuleInfo(id)?.importedIds ?? []) neededBy(next, modules, seen)
  return seen
}
/** What every page needs. */
function modulesOfEvery(modules: Modules): Set<string> {
  return neededBy(
    [...modules.getModuleIds()].find(id => modules.getModuleInfo(id)?.isEntry)!,
    modules,
  )
}
const isPage = (id: string) => /\/app\/pages\/.*\.vue$/.test(id)

/** What the shelf needs at once and not every page. */
export function modulesOfShelf(modules: Modules): Set<string> {
  const page = [...modules.getModuleIds()].find(id => id.endsWith('/app/pages/index.vue'))!
  const every = modulesOfEvery(modules)
  return new Set([...neededBy(page, modules)].filter(id => !every.has(id)))
}
/** What several pages need at once, but for what comes with the shelf or with every page. */
export function modulesOfSeveral(modules: Modules): Set<string> {
  const there = new Set([...modulesOfEvery(modules), ...modulesOfShelf(modules)])
  const once = new Set<string>()
  const several = new Set<string>()
  for (const page of [...modules.getModuleIds()].filter(isPage))
    for (const id of neededBy(page, modules)) if (!there.has(id)) (once.has(id) ? several : once).add(id)
  return several
}

/**
 * Names the file a module goes into: most visits begin at the shelf, which has one of its own, and whoever opens one station
 * has what the others share. The rest of a page goes where it belongs.
 */
export function chunksByPage(): (id: string, modules: Modules) => string | undefined {
  let files: { readonly shelf: Set<string>; readonly several: Set<string> } | null = null
  return (id, modules) => {
    if (id.includes('/demo/builds/')) return 'sample'
    files ??= { shelf: modulesOfShelf(modules), several: modulesOfSeveral(modules) }
    if (files.shelf.has(id)) return 'shelf'
    return files.several.has(id) ? 'several' : undefined
  }
}
