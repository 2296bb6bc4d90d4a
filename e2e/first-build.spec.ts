import { expect, test, written } from './server'
import { choose } from './controls'

test('from an empty shelf to a verdict with the keyboard alone', async ({ app }) => {
  await expect(app.getByText('Nothing on the shelf yet')).toBeVisible()
  await app.keyboard.press('n')
  const dialog = app.getByRole('dialog', { name: 'Start a build' })
  await expect(dialog.getByLabel('Name')).toBeFocused()
  await app.keyboard.press('Enter')
  await expect(dialog.getByRole('alert')).toHaveText('The build’s name cannot be empty.')
  await app.keyboard.type('Toffee')
  await app.keyboard.press('Enter')
  await expect(app.getByRole('heading', { name: 'Aim' })).toBeVisible()
  await app.getByLabel('United States').focus()
  await app.keyboard.press('Space')
  await app.getByLabel('United States, recreation, at most 0.55 lb').focus()
  await app.keyboard.press('Space')
  await expect(app.getByTestId('verdict')).toHaveText('Clear')
  await app.evaluate(() => (document.activeElement as HTMLElement).blur())
  await app.keyboard.press('2')
  await expect(app.getByRole('heading', { name: 'Parts' })).toBeVisible()
  await app.keyboard.press('n')
  const bar = app.getByRole('form', { name: 'New line' })
  await expect(bar.getByLabel('Slot')).toBeFocused()
  await app.keyboard.press('Tab')
  await app.keyboard.type('Brick for testing')
  await app.keyboard.press('Tab')
  await app.keyboard.press('Tab')
  await app.keyboard.type('170,5')
  await app.keyboard.press('Enter')
  await expect(app.getByTestId('verdict')).toHaveText('Over')
  await expect(app.getByText('Saved', { exact: true })).toBeVisible()
})

test('candidates, set-ups, reasons, own cards and find work as they say', async ({ app, server }) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/parts?line=vtx`)
  const inspector = app.getByRole('complementary', { name: 'Inspector' })
  await inspector.getByRole('button', { name: 'Fit Oddfellow digital, open board instead' }).click()
  await expect(app.getByTestId('verdict')).toHaveText('Clear')
  await app.getByLabel('Reason for the last change').fill('lighter without its case')
  await app.keyboard.press('Enter')
  await expect(app.getByLabel('Reason for the last change')).toHaveCount(0)
  await app.getByRole('link', { name: 'Record' }).click()
  await expect(
    app.getByLabel('Reason for: Fitted Oddfellow digital, open board instead of Oddfellow digital, cased, 9 V feed'),
  ).toHaveValue('lighter without its case')
  await app.getByRole('button', { name: 'Take back' }).click()
  await expect(app.getByTestId('verdict')).toHaveText('Too close to call')
  await app.getByRole('button', { name: 'Do again Shift Z' }).click()
  await expect(app.getByTestId('verdict')).toHaveText('Clear')

  await app.getByRole('link', { name: 'Rules' }).click()
  await app.getByRole('button', { name: 'A card of your own' }).click()
  const editor = app.getByRole('dialog', { name: 'A card of your own' })
  await editor.getByLabel('Place').fill('Quillhaven pier')
  await editor.getByLabel('Limit', { exact: true }).fill('-5')
  await editor.getByRole('button', { name: 'Keep it' }).click()
  await expect(editor.getByRole('alert')).toHaveText('The limit must be above zero.')
  await editor.getByLabel('Limit', { exact: true }).fill('8.5')
  await choose(editor.getByLabel('Unit'), 'oz')
  await editor.getByRole('button', { name: 'Keep it' }).click()
  await expect(app.getByRole('article').filter({ hasText: 'Quillhaven pier' })).toContainText(
    'at most 8.5 oz (240.97 g)',
  )
  await app.getByLabel('United States, recreation verified on').fill('20.11.2026')
  await app.keyboard.press('Enter')
  await expect(app.getByRole('article').filter({ hasText: 'Verified by you on' })).toHaveCount(1)

  await app.keyboard.press('Escape')
  await expect(app.getByRole('dialog')).toHaveCount(0)
  await app.evaluate(() => (document.activeElement as HTMLElement).blur())
  await app.keyboard.press('/')
  await expect(app.getByRole('dialog').getByRole('combobox')).toBeFocused()
  await app.keyboard.type('grip pad')
  await expect(app.getByRole('option').first()).toContainText('Grip pad under the pack')
  await app.keyboard.press('Enter')
  await expect(app).toHaveURL(/marzipan\/parts\?line=pad/)
})

test('what flies in no set-up is said in the head with a way out; new payload joins; a copy is of twins', async ({
  app,
  server,
}) => {
  await server.bringIn('praline')
  await app.goto(`${server.address}/builds/praline/parts`)
  await app.getByRole('button', { name: /^New line/ }).click()
  const row = app.getByRole('form', { name: 'New line' })
  await choose(row.getByLabel('Slot'), 'Payload')
  await row.getByLabel('What').fill('Little camera')
  await row.getByLabel('Each, g').fill('32.5')
  await row.getByRole('button', { name: 'Add' }).click()
  await expect(app.getByTestId('auw')).toContainText('129')
  const id = (await app.locator('tr.selected').getAttribute('data-row'))!
  for (const tick of await app
    .getByRole('complementary')
    .locator('.el-checkbox', { hasText: /^(as built|bumpers|lamp|race)/ })
    .getByRole('checkbox')
    .all())
    await tick.uncheck()
  await expect(app.getByTestId('in-no-setup')).toContainText(
    'Little camera, 32.5 g, flies in no set-up and is not counted',
  )
  await expect(app.getByTestId('auw')).toContainText('97.')
  await app
    .getByTestId('in-no-setup')
    .getByRole('button', { name: /Put it into/ })
    .click()
  await expect(app.getByTestId('in-no-setup')).toHaveCount(0)
  await expect(app.getByTestId('auw')).toContainText('129')
  expect(id).not.toBe('')

  const copied = (await (
    await app.request.post(`${server.address}/api/builds`, {
      data: { from: 'copy', name: 'Praline twin', buildId: 'praline' },
    })
  ).json()) as { id: string }
  await app.goto(`${server.address}/builds/${copied.id}/parts`)
  await expect(app.locator('[data-row=motors] [data-col=known]')).toHaveText('twin')
  await expect(app.getByText(/^0 of \d+ weighed$/)).toBeVisible()
  await app.goto(`${server.address}/builds/${copied.id}/parts?line=motors`)
  await expect(app.getByRole('complementary')).toContainText('this one never was, and pieces differ')
})

test('the loadout chooser: another way to fly, the default, and one never flown', async ({ app, server }) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/parts`)
  await app.getByRole('button', { name: /day, navigation · P7/ }).click()
  await app.getByLabel('ridge, lamp and navigation · P7', { exact: true }).check()
  await expect(app.getByTestId('verdict')).toHaveText('Over')
  await expect(app).toHaveURL(/with=ridge\.p7/)
  await app.reload()
  await expect(app.getByTestId('verdict')).toHaveText('Over')
  await app.getByRole('button', { name: /ridge, lamp and navigation · P7/ }).click()
  await app.getByLabel('day, navigation · P4', { exact: true }).check()
  await written(app, () => app.getByRole('button', { name: 'Make it the way I fly' }).click())
  await expect(app.getByText('Saved', { exact: true })).toBeVisible()
  await app.goto(server.address)
  await expect(app.getByRole('article')).toContainText('day, navigation · P4')
  await expect(app.getByRole('article')).toContainText('Clear')
  await app.goto(`${server.address}/builds/marzipan/aim`)
  await app.getByLabel('European Union').check()
  await app.getByLabel(/European Union, open category/).check()
  const heaviest = app.locator('.path').filter({ hasText: 'European Union' })
  await expect(heaviest).toContainText('Over')
  await app.getByRole('button', { name: /day, navigation · P4/ }).click()
  await app.getByLabel('ridge, lamp and navigation · P7 is never flown').check()
  await app.keyboard.press('Escape')
  await expect(heaviest).not.toContainText('Over')
})

test('Aim: answers lead to cards, goals are read, what cannot be read changes nothing, and the path prints', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/aim`)
  await app.getByLabel('anything else: paid').check()
  await expect(app.getByLabel(/United States, any other purpose/)).toBeVisible()
  // The card of another purpose does not count, ticked or not; what is asked whatever it weighs stands here and in the head.
  await expect(app.getByText('does not follow from your answers: it does not count')).toBeVisible()
  await expect(app.getByTestId('verdict')).toHaveCount(0)
  await expect(app.getByTestId('whatever')).toContainText('asked whatever it weighs')
  await expect(app.getByRole('region', { name: 'What applies' })).toContainText(
    'register the aircraft whatever it weighs',
  )
  await expect(app.getByRole('region', { name: 'What applies' })).not.toContainText('no registration')
  await app.getByLabel('recreation', { exact: true }).check()
  await app.getByLabel('Reserve to keep free, g').fill('-1')
  await app.getByLabel('Reserve to keep free, g').press('Tab')
  await expect(app.getByRole('alert')).toHaveText('A mass cannot be negative.')
  await app.getByLabel('Reserve to keep free, g').fill('2,5')
  await app.getByLabel('Reserve to keep free, g').press('Tab')
  await expect(app.getByRole('alert')).toBeHidden()
  await app.getByLabel('Own goal, dry mass, g').fill('150')
  await app.getByLabel('Own goal, dry mass, g').press('Tab')
  await expect(app.getByText('Dry 148.6 of 150.0 g: met.')).toBeVisible()
  await app.getByLabel('Confidence for a verdict, %').fill('75')
  await app.getByLabel('Confidence for a verdict, %').press('Tab')
  await expect(app.getByTestId('verdict')).toHaveText('Clear')
  // The word is judged by the limit; what of the reserve is taken is said beside, here and on the shelf.
  await expect(app.getByTestId('reserve')).toHaveText('Clear, 2.0 g into your reserve.')
  await app.emulateMedia({ media: 'print' })
  await expect(app.getByRole('navigation', { name: 'Stations' })).toBeHidden()
  await expect(app.getByText('Your answers → what applies')).toBeVisible()
  await expect(app.getByText('not legal advice')).toBeVisible()
  await app.emulateMedia({ media: 'screen' })
  await app.getByRole('link', { name: 'Shelf', exact: true }).click()
  await expect(app.getByRole('article')).toContainText('2.0 g into your reserve')
  await expect(app.getByText('one clear, but into the reserve')).toBeVisible()
})
