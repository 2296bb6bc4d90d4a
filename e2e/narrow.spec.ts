import { expect, test } from './server'

/** Every place and every view, as wide as a phone held upright. */
const views = [
  '/',
  '/drawer',
  '/scales',
  '/rules',
  '/settings',
  '/glossary',
  '/field',
  ...[
    'aim',
    'parts',
    'fit',
    'fit?view=stack',
    'fit?view=fixings',
    'fit?view=leads',
    'fit?view=buy',
    'choosing',
    'weigh',
    'weigh?pan=whole',
    'shave',
    'packs',
    'packs?view=setups',
    'packs?view=discharge',
    'packs?view=go',
    'assemble',
    'assemble?view=connections',
    'assemble?view=maiden',
    'balance',
    'balance?view=camera',
    'fly',
    'fly?view=findings',
    'record',
    'record?view=day',
    'record?view=day&at=5',
    'record?view=outcomes',
    'record?view=card',
  ].map(view => `/builds/marzipan/${view}`),
  '/builds/praline/fly',
  '/builds/praline/fly?view=findings',
  '/builds/praline/fly?view=lives',
  '/builds/praline/fly?view=charts',
  '/builds/praline/fly?view=log',
  '/builds/praline/fly?view=settings',
  '/compare',
  '/compare?of=marzipan&of=praline',
]

test('nothing on the phone is wider than the phone: no page and no part of one goes sideways', async ({
  browser,
  server,
}) => {
  await server.bringIn('marzipan', 'praline')
  const page = await browser.newPage({ viewport: { width: 390, height: 844 }, hasTouch: true })
  for (const view of views) {
    await page.goto(server.address + view)
    await expect(page.getByRole('heading').first()).toBeVisible()
    if (view.startsWith('/builds')) await expect(page.locator('.worksheet')).toBeVisible()
    const sideways = () =>
      page.evaluate(() =>
        [document.documentElement, ...document.querySelectorAll('body *')]
          .filter(
            element =>
              element.scrollWidth > element.clientWidth + 2 &&
              (element === document.documentElement ||
                ['auto', 'scroll'].includes(getComputedStyle(element).overflowX)) &&
              element.checkVisibility(),
          )
          .map(element => `${element.className || element.tagName} ${element.clientWidth} < ${element.scrollWidth}`),
      )
    await expect.poll(sideways, { message: view }).toEqual([])
  }
  await page.close()
})

test('on the phone a grip lies in the row it moves', async ({ server, browser }) => {
  await server.bringIn('marzipan')
  const phone = await browser.newPage({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true })
  await phone.goto(`${server.address}/builds/marzipan/packs`)
  const row = phone.locator('[data-pack]').first()
  await expect(row.locator('.grip')).toBeVisible()
  // Both at one moment: the page above may still be growing.
  const inside = await row.evaluate(element => {
    const place = element.getBoundingClientRect()
    const grip = element.querySelector('.grip')!.getBoundingClientRect()
    return { left: grip.left >= place.left, top: grip.top >= place.top, bottom: grip.bottom <= place.bottom }
  })
  expect(inside).toEqual({ left: true, top: true, bottom: true })
  await phone.close()
})
