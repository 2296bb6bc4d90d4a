import { readFileSync } from 'node:fs'
import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { blueScale } from './scale-fixture'
import { stationViews } from '../app/stations/views'
import { demoBuilds, expect, test, type OwnServer } from './server'

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

/** Dialogs, with the page and the button that opens them. */
const dialogs = [
  { title: 'Start a build', path: '/', opener: /^Start a build/ },
  { title: 'Find', path: '/', opener: /^Find/ },
  { title: 'Keys', path: '/', opener: 'Keys' },
  { title: 'Bring parts in', path: '/drawer', opener: 'Bring parts in' },
  { title: 'A kit or set came', path: '/drawer', opener: 'A kit came' },
  { title: 'A card of your own', path: '/rules', opener: 'A card of your own' },
  { title: 'Bring in rows', path: '/builds/marzipan/parts', opener: 'Bring in rows' },
  { title: 'Take apart or move', path: '/builds/marzipan/parts', opener: 'Take apart or move lines' },
]

/** Everything a page can show: five builds, two scales with checks, a drawer. */
async function furnish(server: OwnServer) {
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
}

/** What every page, dialog and list is looked at for, as it stands on this screen. */
async function lookAtAll(app: Page, address: string) {
  for (const path of pages) {
    await app.goto(address + path)
    await expect(app.getByRole('heading', { level: 1 })).toBeVisible()
    await app.waitForLoadState('networkidle')
    expect(await seriousFaults(app), path).toEqual([])
  }
  for (const { title, path, opener } of dialogs) {
    await app.goto(address + path)
    const button = app.getByRole('button', { name: opener }).first()
    await button.focus()
    await app.keyboard.press('Enter')
    const dialog = app.getByRole('dialog', { name: title })
    await expect(dialog).toBeVisible()
    expect(await seriousFaults(app), title).toEqual([])
    await expect
      .poll(() => dialog.evaluate(element => element.contains(document.activeElement)), { message: `${title}: focus` })
      .toBe(true)
    await app.keyboard.press('Escape')
    await expect(dialog).toBeHidden()
    await expect(button, `focus comes back from ${title}`).toBeFocused()
  }
  await app.goto(`${address}/builds/marzipan/parts?line=vtx`)
  const role = app.getByRole('combobox', { name: 'Role' })
  await expect(role).toHaveAccessibleDescription('airframe')
  await role.click()
  await expect(app.getByRole('option', { name: 'payload' })).toBeVisible()
  expect(await seriousFaults(app), 'a list of choices open').toEqual([])
  await app.goto(`${address}/rules`)
  await app.getByLabel('United States, recreation verified on').click()
  await expect(app.getByRole('dialog', { name: 'United States, recreation verified on: day' })).toBeVisible()
  expect(await seriousFaults(app), 'a month open').toEqual([])
}

for (const [device, viewport] of [
  ['desk', { width: 1280, height: 800 }],
  ['phone', { width: 390, height: 844 }],
] as const)
  for (const colorScheme of ['light', 'dark'] as const)
    test(`axe finds nothing serious on any page, in any dialog or open list: ${device}, ${colorScheme}`, async ({
      app,
      server,
    }) => {
      test.setTimeout(600_000)
      await furnish(server)
      await app.setViewportSize(viewport)
      await app.emulateMedia({ colorScheme, reducedMotion: 'reduce' })
      await lookAtAll(app, server.address)
    })
