import { describe, expect, it } from 'vitest'
import nougatFile from '../../demo/builds/nougat.build.json'
import { ListingBiasTable } from '../../core/mass/listings'
import type { Build } from '../../core/model/ledger'
import { buildPage } from './build-page'
import { buildSheet } from './build-sheet'

const nougat = nougatFile.build as unknown as Build
const honesty = new ListingBiasTable()
const pageOf = (build: Build) =>
  buildPage(build, [], honesty, buildSheet(build, [], honesty, { currency: '€', ounces: false }))

describe('the build sheet as a page', () => {
  it('has strip, lines, loadouts and drawings in it, fetches nothing and runs nothing', () => {
    const page = pageOf(nougat)
    expect(page).toContain('<h1>Nougat</h1>')
    expect(page).toContain('aria-label="Mass strip: 254.97 g ± 0.87"')
    expect(page.match(/<title>/g)!.length).toBeGreaterThanOrEqual(19)
    expect(page.match(/<img src="data:image\/svg\+xml/g)).toHaveLength(2)
    for (const { name } of nougat.lines) expect(page).toContain(name.replace(/&/g, '&amp;').replace(/"/g, '&quot;'))
    expect(page).not.toMatch(/<script|onload=|javascript:|src="http|href="http|@import|url\(/i)
    expect(page).toContain("default-src 'none'")
  })
  it('takes nothing a builder has typed for markup', () => {
    const evil = '<img src=x onerror=alert(1)> & "quoted" [link](javascript:alert(1)) | `code`'
    const page = pageOf({
      ...nougat,
      name: evil,
      lines: nougat.lines.map((line, i) => (i === 0 ? { ...line, name: evil, note: evil } : line)),
    })
    expect(page).not.toMatch(/<img src=x|href="javascript:|<code>/)
    expect(page).toContain('onerror=alert(1)')
  })
})
