import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { basename, join } from 'node:path'
import { describe, expect, it } from 'vitest'

const root = join(import.meta.dirname, '..')
const sources = execFileSync('git', ['ls-files', '-co', '--exclude-standard', 'app', 'core', 'server', 'shared'], {
  cwd: root,
})
  .toString()
  .split('\n')
  .filter(path => /\.(?:ts|vue)$/.test(path) && !/\.(?:test|d)\.ts$/.test(path))

/** What a file gives others by name: its exports, and a component itself. */
function namesIn(path: string): string[] {
  const text = readFileSync(join(root, path), 'utf8')
  const exported = [...text.matchAll(/^export (?:async )?(?:const|function\*?|class|interface|type) (\w+)/gm)]
  const component = path.startsWith('app/components/') && path.endsWith('.vue') ? [basename(path, '.vue')] : []
  return [...component, ...exported.map(([, name]) => name!)]
}

describe('names', () => {
  it('no two things that others can take by name have the same one', () => {
    const places = new Map<string, Set<string>>()
    for (const path of sources)
      for (const name of namesIn(path)) places.set(name, (places.get(name) ?? new Set<string>()).add(path))
    expect(places.size).toBeGreaterThan(1500)
    const twice = [...places]
      .filter(([, paths]) => paths.size > 1)
      .map(([name, paths]) => `${name}: ${[...paths].join(', ')}`)
    expect(twice).toEqual([])
  })

  it('every component a template names is there: nothing else says so before the page is looked at', () => {
    const ofTheFramework = ['NuxtLink', 'NuxtPage', 'Teleport', 'Transition']
    const pages = sources.filter(path => path.endsWith('.vue'))
    const own = pages.filter(path => path.startsWith('app/components/')).map(path => basename(path, '.vue'))
    const known = new Set([...ofTheFramework, ...own, ...own.map(name => `Lazy${name}`)])
    let named = 0
    const missing = pages.flatMap(path => {
      const [script, template = ''] = readFileSync(join(root, path), 'utf8').split(/^<template>$/m)
      const imported = new Set(
        [...script!.matchAll(/^import \{([^}]*)\}/gm)].flatMap(([, names]) => names!.split(/\W+/)),
      )
      const tags = [...template.matchAll(/<([A-Z]\w+)/g)].map(([, tag]) => tag!)
      named += tags.length
      return tags.filter(tag => !known.has(tag) && !imported.has(tag)).map(tag => `${path}: ${tag}`)
    })
    expect(named).toBeGreaterThan(500)
    expect(missing).toEqual([])
  })
})
