import { chromium, type Locator, type Page } from '@playwright/test'
import { expect, test } from './server'

/** Goes on by Tab until the field or button has the focus; nothing may hold it on the way. */
async function tabTo(what: Locator, back = false): Promise<void> {
  const page = what.page()
  await what.first().waitFor()
  const seen: string[] = []
  for (let presses = 0; presses < 120; presses++) {
    if (await what.first().evaluate(element => element === document.activeElement)) return
    await page.keyboard.press(back ? 'Shift+Tab' : 'Tab')
    seen.push(await page.evaluate(() => document.activeElement?.outerHTML.slice(0, 60) ?? ''))
  }
  throw new Error(`Tab never came to it. It went over:\n${seen.slice(-12).join('\n')}`)
}
/** What was sent to the printer, instead of printing. */
async function notePrints(page: Page): Promise<() => Promise<string[]>> {
  await page.addInitScript(() => {
    const prints: string[] = []
    Object.assign(window, { prints, print: () => prints.push(document.title) })
  })
  return () => page.evaluate(() => (window as unknown as { prints: string[] }).prints)
}

test.describe.configure({ timeout: 180_000 })

test('from an empty shelf to a Clear verdict, a plan, a weighing and a printed card, by the keyboard alone', async ({
  app,
  server,
}) => {
  const prints = await notePrints(app)
  const goTo = async (station: string) => {
    await tabTo(app.getByRole('navigation').getByRole('link', { name: new RegExp(`\\b${station}\\b`) }))
    await app.keyboard.press('Enter')
    await expect(app.getByRole('heading', { name: station, exact: true })).toBeVisible()
  }
  await app.goto(server.address)
  await expect(app.getByText('Nothing on the shelf yet')).toBeVisible()
  await tabTo(app.getByRole('button', { name: /^Start a build/ }))
  await app.keyboard.press('Enter')
  const dialog = app.getByRole('dialog', { name: 'Start a build' })
  await expect(dialog.getByLabel('Name')).toBeFocused()
  await app.keyboard.type('Toffee')
  await app.keyboard.press('Enter')
  await expect(app.getByRole('heading', { name: 'Aim' })).toBeVisible()
  await tabTo(app.getByLabel('United States', { exact: true }))
  await app.keyboard.press('Space')
  await tabTo(app.getByLabel('United States, recreation, at most 0.55 lb'))
  await app.keyboard.press('Space')
  await expect(app.getByTestId('verdict')).toHaveText('Clear')

  // A part that is too much: the ledger by its own keys.
  await app.keyboard.press('2')
  await expect(app.getByRole('heading', { name: 'Parts' })).toBeVisible()
  await app.keyboard.press('n')
  const bar = app.getByRole('form', { name: 'New line' })
  await expect(bar.getByLabel('Slot')).toBeFocused()
  await tabTo(bar.getByLabel('What'))
  await app.keyboard.type('Brick for testing')
  await tabTo(bar.getByLabel('Each, g'))
  await app.keyboard.type('100,5')
  await app.keyboard.press('Enter')
  await expect(app.getByTestId('verdict')).toHaveText('Over')
  await app.keyboard.press('Escape')
  await expect(bar).toHaveCount(0)

  // The plan that takes it off again.
  await goTo('Shave')
  await expect(app.getByRole('heading', { name: 'Shave', exact: true })).toBeVisible()
  await tabTo(app.getByLabel('What is done'))
  await app.keyboard.type('a lighter brick')
  await tabTo(app.getByLabel('Grams off', { exact: true }))
  await app.keyboard.type('99')
  await app.keyboard.press('Enter')
  const inspector = app.getByRole('complementary', { name: 'Inspector' })
  await expect(inspector).toContainText('until then no plan can use it')
  await tabTo(inspector.getByLabel('Line it touches'))
  await app.keyboard.press('ArrowDown')
  await app.keyboard.type('Brick')
  await expect(app.getByRole('option', { name: 'Brick for testing' })).toBeVisible()
  await app.keyboard.press('ArrowDown')
  await app.keyboard.press('Enter')
  await expect(app.getByTestId('plan-sentence')).toContainText('The plan: one step')
  await tabTo(app.getByRole('button', { name: /^Do it/ }))
  await app.keyboard.press('Enter')
  await expect(app.getByLabel('What came off by the scale, g')).toBeFocused()
  await app.keyboard.type('98.9')
  await app.keyboard.press('Enter')
  await expect(app.getByTestId('verdict')).toHaveText('Clear')

  // A weighing typed by hand.
  await goTo('Weigh')
  await expect(app.getByRole('heading', { name: 'Weigh', exact: true })).toBeVisible()
  const spread = app.locator('.strip-head .value small')
  const before = await spread.textContent()
  await tabTo(app.getByLabel('Type what the scale shows'))
  await app.keyboard.type('20,48')
  await app.keyboard.press('Enter')
  await expect(spread).not.toHaveText(before!)

  await goTo('Aim')
  await tabTo(app.getByRole('button', { name: 'Print what applies' }))
  await app.keyboard.press('Enter')
  expect(await prints()).toEqual([expect.stringContaining('Toffee')])
})

test('the same path by touch alone, on a phone', async ({ server, launchOptions }) => {
  const browser = await chromium.launch(launchOptions)
  const phone = await (
    await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true })
  ).newPage()
  const prints = await notePrints(phone)
  await phone.goto(server.address)
  const goTo = async (station: string) => {
    await phone
      .getByRole('navigation', { name: 'Stations' })
      .getByRole('link', { name: new RegExp(`\\b${station}\\b`) })
      .tap()
    await expect(phone.getByRole('heading', { name: station, exact: true })).toBeVisible()
  }
  await phone
    .getByRole('button', { name: /^Start a build/ })
    .first()
    .tap()
  const dialog = phone.getByRole('dialog', { name: 'Start a build' })
  await dialog.getByLabel('Name').tap()
  await phone.keyboard.type('Toffee')
  await dialog.getByRole('button', { name: 'Start it' }).tap()
  await expect(phone.getByRole('heading', { name: 'Aim' })).toBeVisible()
  await phone.getByText('United States', { exact: true }).tap()
  await phone.getByLabel('United States, recreation, at most 0.55 lb').tap()
  await expect(phone.getByTestId('verdict')).toHaveText('Clear')

  await goTo('Parts')
  await phone.getByRole('button', { name: /^New line/ }).tap()
  const bar = phone.getByRole('form', { name: 'New line' })
  await bar.getByLabel('What').tap()
  await phone.keyboard.type('Brick for testing')
  await bar.getByLabel('Each, g').tap()
  await phone.keyboard.type('100,5')
  await bar.getByRole('button', { name: 'Add' }).tap()
  await expect(phone.getByTestId('verdict')).toHaveText('Over')
  await bar.getByRole('button', { name: 'Close' }).tap()

  await goTo('Shave')
  await phone.getByLabel('What is done').tap()
  await phone.keyboard.type('a lighter brick')
  await phone.getByLabel('Grams off', { exact: true }).tap()
  await phone.keyboard.type('99')
  await phone.getByRole('button', { name: /^New shaving/ }).tap()
  const inspector = phone.getByRole('complementary', { name: 'Inspector' })
  await inspector.getByLabel('Line it touches').tap()
  await phone.getByRole('option', { name: 'Brick for testing' }).tap()
  await expect(phone.getByTestId('plan-sentence')).toContainText('The plan: one step')
  await phone.getByRole('button', { name: /^Do it/ }).tap()
  await phone.getByLabel('What came off by the scale, g').tap()
  await phone.keyboard.type('98.9')
  await phone.getByRole('button', { name: 'Done', exact: true }).tap()
  await expect(phone.getByTestId('verdict')).toHaveText('Clear')

  await goTo('Weigh')
  const spread = phone.locator('.strip-head .value small')
  const before = await spread.textContent()
  await phone.getByLabel('Type what the scale shows').tap()
  await phone.keyboard.type('20,48')
  await phone.getByRole('button', { name: /^Take it/ }).tap()
  await expect(spread).not.toHaveText(before!)

  await goTo('Aim')
  await phone.getByRole('button', { name: 'Print what applies' }).tap()
  expect(await prints()).toEqual([expect.stringContaining('Toffee')])
  await browser.close()
})
