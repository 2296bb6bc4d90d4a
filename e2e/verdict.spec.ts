import { demoBuilds, expect, loadedAhead, test, written } from './server'

test.beforeEach(async ({ server }) => server.bringIn(...demoBuilds))

test('Marzipan is too close to call; weighing the part it names settles it at once, for good, and Z takes it back', async ({
  app,
  server,
}) => {
  await app.goto(`${server.address}/builds/marzipan/parts`)
  await expect(app.getByTestId('verdict')).toHaveText('Too close to call')
  await expect(app.getByTestId('action')).toContainText('Weigh the video transmitter: it would settle it')
  await expect(app.getByTestId('auw')).toHaveText('248.5 g ± 2.3')

  const cell = app.locator('[data-row=vtx] [data-col=each]')
  await cell.dblclick()
  await app.keyboard.type('16.95 w')
  // Everything that shows the total is read in the frame after the key, before any answer of the server.
  const afterOneFrame = await app.evaluate(
    () =>
      new Promise<string[]>(done => {
        const editor = document.querySelector<HTMLInputElement>('[data-row=vtx] [data-col=each] input')!
        editor.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }))
        requestAnimationFrame(() => {
          const text = (test: string) => document.querySelector(`[data-test=${test}]`)?.textContent?.trim() ?? ''
          done([
            text('verdict'),
            text('auw'),
            text('headroom'),
            document.querySelector('.stations')?.textContent ?? '',
            document.querySelector('[aria-label^="Oddfellow digital, cased"]')?.getAttribute('aria-label') ?? '',
          ])
        })
      }),
  )
  expect(afterOneFrame[0]).toBe('Clear')
  expect(afterOneFrame[1]).toContain('248.27')
  expect(afterOneFrame[2]).toContain('1.21 g headroom')
  expect(afterOneFrame[3]).toContain('14 of 17 weighed')
  expect(afterOneFrame[4]).toContain('16.95 g ± 0.06, weighed')

  await expect(app.getByText('Saved', { exact: true })).toBeVisible()
  await app.reload()
  await expect(app.getByTestId('verdict')).toHaveText('Clear')
  await app.locator('.strip-head').click()
  await app.keyboard.press('z')
  await expect(app.getByTestId('verdict')).toHaveText('Too close to call')
  await expect(app.getByTestId('auw')).toHaveText('248.5 g ± 2.3')
})

test('a server killed right after its answer has lost nothing', async ({ app, server }) => {
  await app.goto(`${server.address}/builds/marzipan/parts`)
  await app.locator('[data-row=vtx] [data-col=each]').dblclick()
  await app.keyboard.type('17.31 w')
  const answered = app.waitForResponse(response => response.url().endsWith('/commands') && response.ok())
  await app.keyboard.press('Enter')
  await answered
  await loadedAhead(app)
  await server.kill()
  await server.start()
  await app.reload()
  await expect(app.locator('[data-row=vtx] [data-col=each]')).toHaveText('17.31')
})

test('what is typed while the server is away is written once it is back', async ({ app, server }) => {
  await app.goto(`${server.address}/builds/marzipan/parts`)
  await expect(app.getByTestId('verdict')).toBeVisible()
  await loadedAhead(app)
  await server.kill()
  await app.locator('[data-row=strap] [data-col=each]').dblclick()
  await app.keyboard.type('3.05')
  await app.keyboard.press('Enter')
  await expect(app.getByText('Not saved yet: the server does not answer')).toBeVisible()
  await server.start()
  await expect(app.getByText('Saved', { exact: true })).toBeVisible()
  const { build } = await server.json<{ build: { lines: { id: string; mass: { valueG: number } }[] } }>(
    '/api/builds/marzipan',
  )
  expect(build.lines.find(line => line.id === 'strap')?.mass.valueG).toBe(3.05)
})

test('desk and phone: the second writer is told, sees both versions, and loses nothing', async ({
  app,
  server,
  context,
  browser,
}) => {
  // Neither hears of the other's changes, as on a bad network.
  const elsewhere = await browser.newContext()
  for (const place of [context, elsewhere]) await place.route('**/stream', route => route.abort())
  await app.goto(`${server.address}/builds/marzipan/parts`)
  const other = await elsewhere.newPage()
  await other.goto(`${server.address}/builds/marzipan/parts`)
  // Both have seen the build before either of them writes.
  for (const page of [app, other]) await expect(page.getByTestId('verdict')).toBeVisible()
  const type = async (page: typeof app, grams: string) => {
    const cell = page.locator('[data-row=strap] [data-col=each]')
    await cell.dblclick()
    await page.keyboard.type(grams)
    await page.keyboard.press('Enter')
    // With the figure in its cell the line below says “Saving …” until it is.
    await expect(cell).toHaveText(grams)
  }
  await type(app, '3.11')
  await expect(app.getByText('Saved', { exact: true })).toBeVisible()
  await type(other, '2.22')
  const dialog = other.getByRole('dialog', { name: 'This build was changed in another window' })
  await expect(dialog).toContainText('2.22 g weighed')
  await expect(dialog).toContainText('3.11 g weighed')
  await written(other, () => dialog.getByRole('button', { name: 'Put my change on top' }).click())
  await expect(other.getByText('Saved', { exact: true })).toBeVisible()
  const journal = await server.json<{ entries: { gramsBeforeG: number; gramsAfterG: number }[] }>(
    '/api/builds/marzipan/journal',
  )
  expect(journal.entries.slice(0, 2).map(e => [e.gramsBeforeG, e.gramsAfterG])).toEqual([
    [3.11, 2.22],
    [3.41, 3.11],
  ])

  await type(app, '4.44')
  await app.getByRole('button', { name: 'Keep what is there' }).click()
  await expect(app.locator('[data-row=strap] [data-col=each]')).toHaveText('2.22')
})

test('Japan leaves a removable lamp out, the United Kingdom does not, and the inspector says why', async ({
  app,
  server,
}) => {
  await app.goto(`${server.address}/builds/praline/parts?with=lamp.q2`)
  await expect(app.getByTestId('verdict')).toHaveText('Over')
  const inspector = app.getByRole('complementary', { name: 'Inspector' })
  await expect(inspector).toContainText('leaves out Clip-on tail lamp with its own cell, Printed clip for the lamp')
  await expect(inspector.locator('.card').filter({ hasText: 'Japan' })).toContainText('Clear')
  await expect(inspector.locator('.card').filter({ hasText: 'United Kingdom' })).toContainText('Over')
  for (const id of ['lamp', 'lampclip']) {
    await app.locator(`[data-row=${id}] [data-col=name]`).click()
    await inspector.getByLabel('Removable without tools').uncheck()
  }
  await inspector.getByRole('button', { name: 'Back to the build' }).click()
  await expect(inspector.locator('.card').filter({ hasText: 'Japan' })).toContainText('Over')
})

test('shelf, strip, sheet, record and report agree on every figure', async ({ app, server }) => {
  await app.goto(server.address)
  for (const [name, id] of [
    ['Sherbet', 'sherbet'],
    ['Marzipan', 'marzipan'],
    ['Nougat', 'nougat'],
  ] as const) {
    await app.goto(server.address)
    const card = app.getByRole('article').filter({ hasText: name })
    const plain = (text: string | null) => (text ?? '').replace(/\s+/g, ' ').trim()
    const onShelf = plain(await card.locator('.value').textContent())
    const word = plain(await card.locator('.mark').textContent())
    await app.goto(`${server.address}/builds/${id}/parts`)
    expect(plain(await app.getByTestId('auw').textContent())).toBe(onShelf)
    expect(plain(await app.getByTestId('verdict').textContent())).toBe(word)
    const report = await server.json<{ rows: { choice: object; auwG: number; cards: { verdict: string }[] }[] }>(
      `/api/builds/${id}/report`,
    )
    const { build } = await server.json<{ build: { flies: object } }>(`/api/builds/${id}`)
    const row = report.rows.find(r => JSON.stringify(r.choice) === JSON.stringify(build.flies))!
    const shown = onShelf.split(' ')[0]!
    expect(shown).toBe(row.auwG.toFixed(shown.split('.')[1]?.length ?? 0))
    expect(row.cards[0]!.verdict).toBe(word)
    const journal = await server.json<{ entries: { auwAfterG: number }[] }>(`/api/builds/${id}/journal`)
    if (id === 'sherbet') expect(journal.entries[0]!.auwAfterG).toBeCloseTo(row.auwG, 9)
  }
})

test('all of a long journal can be reached, and stays shown when somebody changes something', async ({
  app,
  server,
}) => {
  await server.bringIn('sherbet')
  const change = async (n: number) => {
    const { revision } = await server.json<{ revision: number }>('/api/builds/sherbet')
    await server.send(
      'POST',
      '/api/builds/sherbet/commands',
      { command: { type: 'build.set', fields: { craftClass: `class ${n}` } }, note: `so that it is entry ${n}` },
      { 'if-match': `"${revision}"` },
    )
  }
  for (let n = 0; n < 205; n++) await change(n)
  await app.goto(`${server.address}/builds/sherbet/record`)
  const rows = app.locator('tbody tr:not(.day)')
  await expect(rows).toHaveCount(200)
  await app.getByRole('button', { name: 'Show earlier changes' }).click()
  const { entries } = await server.json<{ entries: { seq: number }[] }>('/api/builds/sherbet/journal')
  await expect(rows).toHaveCount(entries[0]!.seq)
  await expect(app.getByRole('button', { name: 'Show earlier changes' })).toHaveCount(0)
  await change(999)
  await expect(rows).toHaveCount(entries[0]!.seq + 1)
})
