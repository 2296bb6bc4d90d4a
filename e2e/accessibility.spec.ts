import { readFileSync } from 'node:fs'
import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { blueScale } from './scale-fixture'
import { stationViews } from '../app/stations/views'
import { demoBuilds, expect, test, type OwnServer } from './server'

/** Rules whose outcome hangs on the colours. */
const colourRules = ['color-contrast', 'link-in-text-block']

async function seriousFaults(page: Page, rules?: string[]): Promise<string[]> {
  // The application has no frames: all is looked at in the page itself, which takes a quarter of the time.
  const axe = new AxeBuilder({ page }).setLegacyMode(true).options({ resultTypes: ['violations'] })
  const { violations } = await (rules ? axe.withRules(rules) : axe).analyze()
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
  // Marzipan has not flown: what was flown is looked at on a craft that has.
  ...Object.entries(stationViews).flatMap(([page, views]) =>
    views.map(view => `/builds/${page === 'fly' ? 'praline' : 'marzipan'}/${page}${view}`),
  ),
  '/builds/marzipan/fly',
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
  '/field',
  '/',
  '/drawer',
  '/drawer?part=strap-12',
  '/scales',
  '/rules',
  '/settings',
  '/glossary',
  '/compare',
  '/compare?of=marzipan&of=nougat',
  '/compare?of=marzipan&of=nougat@9&of=praline',
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

const screens = {
  desk: { width: 1280, height: 800 },
  phone: { width: 390, height: 844 },
}
/** What stands there is looked at on both screens, in daylight by every rule and in the dark by those of colour. */
async function lookAt(app: Page, what: string) {
  for (const [screen, size] of Object.entries(screens)) {
    await app.setViewportSize(size)
    for (const colorScheme of ['light', 'dark'] as const) {
      await app.emulateMedia({ colorScheme, reducedMotion: 'reduce' })
      const faults = await seriousFaults(app, colorScheme === 'dark' ? colourRules : undefined)
      expect(faults, `${what}: ${screen}, ${colorScheme}`).toEqual([])
    }
  }
  await app.setViewportSize(screens.desk)
  await app.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' })
}
/** What every closed list of choices on the page says of itself, as the accessibility tree has it, beside what stands in it. */
async function choicesOf(page: Page): Promise<{ name: string; said: string; shown: string }[]> {
  const session = await page.context().newCDPSession(page)
  const { root } = await session.send('DOM.getDocument', { depth: 0 })
  const { nodeIds } = await session.send('DOM.querySelectorAll', {
    nodeId: root.nodeId,
    selector: '.el-select input[role=combobox]',
  })
  // What waits for a choice shows only what could be chosen there: that is not what is chosen.
  const shown = await page.locator('.el-select input[role=combobox]').evaluateAll(fields =>
    fields.map(field => ({
      visible: field.checkVisibility(),
      text:
        field.closest('.el-select')!.querySelector('.el-select__placeholder:not(.is-transparent)')?.textContent ?? '',
    })),
  )
  const found = []
  for (const [i, nodeId] of nodeIds.entries()) {
    if (!shown[i]!.visible) continue
    const { nodes } = await session.send('Accessibility.getPartialAXTree', { nodeId, fetchRelatives: false })
    const { name, value, description } = nodes[0]!
    const said = [value?.value, description?.value].filter(Boolean).map(String).join(' ')
    found.push({ name: String(name?.value ?? ''), said: said.trim(), shown: shown[i]!.text.trim() })
  }
  await session.detach()
  return found
}
/** Looks at pages, and asks every list of choices on them for its name and what is chosen; how many show a choice. */
async function lookAtPages(app: Page, address: string, some: readonly string[]): Promise<number> {
  let chosen = 0
  const dumb: string[] = []
  for (const path of some) {
    await app.goto(address + path)
    await expect(app.getByRole('heading', { level: 1 })).toBeVisible()
    await app.waitForLoadState('networkidle')
    await lookAt(app, path)
    await app.locator('details').evaluateAll(all => all.forEach(one => one.setAttribute('open', '')))
    for (const { name, said, shown } of await choicesOf(app)) {
      if (name === '' || said !== shown) dumb.push(`${path}: “${name}” shows “${shown}” and says “${said}”`)
      if (shown !== '') chosen++
    }
  }
  expect(dumb).toEqual([])
  return chosen
}
async function lookAtDialogs(app: Page, address: string) {
  for (const { title, path, opener } of dialogs) {
    await app.goto(address + path)
    const button = app.getByRole('button', { name: opener }).first()
    await button.focus()
    await app.keyboard.press('Enter')
    const dialog = app.getByRole('dialog', { name: title })
    await expect(dialog).toBeVisible()
    await lookAt(app, title)
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
  await lookAt(app, 'a list of choices open')
  await app.goto(`${address}/rules`)
  await app.getByLabel('United States, recreation verified on').click()
  await expect(app.getByRole('dialog', { name: 'United States, recreation verified on: day' })).toBeVisible()
  await lookAt(app, 'a month open')
}

test.describe.configure({ timeout: 600_000 })
for (const half of [0, 1])
  test(`axe finds nothing serious on any page; lists of choices say what is chosen; light, dark, desk, phone: half ${half + 1}`, async ({
    app,
    server,
  }) => {
    await furnish(server)
    const some = pages.filter((_, n) => n % 2 === half)
    expect(await lookAtPages(app, server.address, some)).toBeGreaterThan(20)
  })

test('axe finds nothing serious in dialogs and open lists; they take the focus and give it back', async ({
  app,
  server,
}) => {
  await furnish(server)
  await app.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' })
  await lookAtDialogs(app, server.address)
})
