import { readFileSync } from 'node:fs'
import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { blueScale } from './scale-fixture'
import { stationViews } from '../app/stations/views'
import { demoBuilds, expect, test } from './server'

async function seriousFaults(page: Page): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page }).analyze()
  return violations
    .filter(v => v.impact === 'serious' || v.impact === 'critical')
    .map(
      v =>
        `${v.id}: ${v.nodes
          .map(n => n.target.join(' '))
          .slice(0, 3)
          .join(', ')}`,
    )
}

/** Every view of every station; the places that belong to no build; and what only shows with something chosen. */
const pages = [
  ...Object.entries(stationViews).flatMap(([page, views]) => views.map(view => `/builds/marzipan/${page}${view}`)),
  '/builds/marzipan/parts?line=vtx',
  '/builds/praline/parts?with=lamp.q2&line=lamp',
  '/builds/nougat/fit?view=fixings',
  '/builds/nougat/fit?view=leads',
  '/builds/treacle/fit?view=buy',
  '/builds/nougat/choosing?line=motors',
  '/builds/praline/packs?view=setups',
  '/builds/nougat/shave',
  '/builds/treacle/assemble?step=directions',
  '/builds/treacle/assemble?view=maiden',
  '/builds/nougat/record',
  '/',
  '/drawer',
  '/drawer?part=strap-12',
  '/scales',
  '/rules',
  '/settings',
  '/glossary',
]

for (const colorScheme of ['light', 'dark'] as const) {
  test(`axe finds nothing serious on any page, ${colorScheme}`, async ({ app, server }) => {
    test.setTimeout(600_000)
    await server.bringIn(...demoBuilds)
    for (const id of ['blue', 'red']) {
      await server.send('PUT', `/api/scales/${id}`, blueScale)
      await server.send('POST', `/api/scales/${id}/checks`, {
        takenAt: new Date().toISOString(),
        placings: [
          { references: [], displayG: 0 },
          { references: [{ id: 'brass', massG: 100, toleranceG: 0.01 }], displayG: 100.22 },
        ],
      })
    }
    await server.send('POST', '/api/parts', {
      parts: (JSON.parse(readFileSync('demo/drawer.json', 'utf8')) as { parts: object[] }).parts.map(part => ({
        ...part,
        kitId: null,
      })),
    })
    await app.emulateMedia({ colorScheme, reducedMotion: 'reduce' })
    for (const path of pages) {
      await app.goto(server.address + path)
      await expect(app.getByRole('heading', { level: 1 })).toBeVisible()
      await app.waitForLoadState('networkidle')
      expect(await seriousFaults(app), path).toEqual([])
    }
    await app.goto(`${server.address}/builds/marzipan/parts?line=vtx`)
    const role = app.getByRole('combobox', { name: 'Role' })
    await expect(role).toHaveAccessibleDescription('airframe')
    await role.click()
    await expect(app.getByRole('option', { name: 'payload' })).toBeVisible()
    expect(await seriousFaults(app), 'a list of choices open').toEqual([])
    await app.goto(`${server.address}/rules`)
    await app.getByLabel('United States, recreation verified on').click()
    await expect(app.getByRole('dialog', { name: 'United States, recreation verified on: day' })).toBeVisible()
    expect(await seriousFaults(app), 'a month open').toEqual([])
    await app.goto(server.address)
    await app.getByRole('button', { name: /Start a build/ }).click()
    await expect(app.getByRole('dialog', { name: 'Start a build' })).toBeVisible()
    expect(await seriousFaults(app), 'start a build').toEqual([])
  })
}
