import jsQR from 'jsqr'
import sharp from 'sharp'
import type { Locator } from '@playwright/test'
import type { Build } from '../core/model/ledger'
import { choose } from './controls'
import { filledBoxes } from './pdf'
import { expect, test, written } from './server'

/** What a camera reads of a part of the page. */
async function readCode(code: Locator): Promise<string | null> {
  const { data, info } = await sharp(await code.screenshot({ scale: 'device' }))
    .resize(600)
    .extend({ top: 60, bottom: 60, left: 60, right: 60, background: '#ffffff' })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true })
  return jsQR(new Uint8ClampedArray(data), info.width, info.height)?.data ?? null
}

test('the weight card and its labels: codes read back, labels are printed in their true size, nothing private stands on it', async ({
  app,
  server,
}) => {
  await server.bringIn('praline')
  await app.goto(`${server.address}/builds/praline/record?view=card`)
  const card = app.getByRole('img', { name: /^Weight card of Praline/ })
  await expect(card).toContainText('97.09')
  await expect(card).toContainText('Clear')
  await expect(card).toContainText('not legal advice')
  expect(await readCode(card.getByTestId('qr'))).toBe(`${server.address}/builds/praline/parts`)
  const label = app.getByRole('img', { name: 'Label Q2' })
  await expect(label).toContainText('530 mAh')
  expect(await readCode(label.getByTestId('qr'))).toBe(`${server.address}/builds/praline/parts?line=q2`)
  // A code holds an address and no figures.
  await expect(card).not.toContainText('Quillhaven')

  const labels = async (width: number, height: number, format: 'A4' | 'Letter') => {
    await app.evaluate(() => {
      window.print = () => undefined
    })
    await app.getByRole('button', { name: 'Print the sheet' }).click()
    const pdf = await app.pdf({ format, preferCSSPageSize: true, printBackground: true })
    await app.evaluate(() => window.dispatchEvent(new Event('afterprint')))
    return filledBoxes(pdf).filter(
      box => Math.abs(box.widthMm - (width - 0.3)) < 0.15 && Math.abs(box.heightMm - (height - 0.3)) < 0.15,
    ).length
  }
  expect(await labels(62, 29, 'A4')).toBe(3)
  await choose(app.getByRole('combobox', { name: 'Paper' }), 'Letter')
  await choose(app.getByRole('combobox', { name: 'Label size' }), '50 × 25 mm')
  expect(await labels(50, 25, 'Letter')).toBe(3)
  await app.getByRole('checkbox', { name: /^Q1/ }).click()
  await expect(app.getByRole('img', { name: /^Label/ })).toHaveCount(2)

  const coming = app.waitForEvent('download')
  await app.getByRole('button', { name: 'Card as PNG' }).click()
  const { width, height } = await sharp((await (await coming).path())!).metadata()
  expect(width! / height!).toBeCloseTo(186 / 157, 0)
  await app.getByRole('checkbox', { name: 'code to the build' }).click()
  await expect(card.getByTestId('qr')).toHaveCount(0)
})

test('plans and outcomes: parts that were planned and weighed, and what solder and tape come to', async ({
  app,
  server,
}) => {
  await server.bringIn('nougat', 'sherbet')
  await app.goto(`${server.address}/builds/nougat/record?view=outcomes`)
  await expect(app.getByText(/18 parts were planned and then weighed/)).toBeVisible()
  await expect(app.getByTestId('sundries')).toContainText('by its class')
  await expect(app.getByRole('row', { name: /Ostler 1404/ })).toContainText('36.84')
})

test('a card never says too little: lines without grams are told, nothing at all has no card, a whole craft has none', async ({
  app,
  server,
}) => {
  await server.bringIn('sherbet')
  const { revision } = await server.json<{ revision: number }>('/api/builds/sherbet')
  const line = {
    ...{ id: 'open', slot: 'strap', name: 'A strap', quantity: 1, mass: null, listing: null, state: 'fitted' },
    ...{ role: 'airframe', removable: false, priceEachCents: null, note: '', tie: null, insteadOf: null, pack: null },
  }
  const command = { type: 'lines.add', lines: [line], beforeId: null }
  await server.send('POST', '/api/builds/sherbet/commands', { command }, { 'if-match': `"${revision}"` })
  await app.goto(`${server.address}/builds/sherbet/record?view=card`)
  const card = app.getByRole('img', { name: /^Weight card of Sherbet/ })
  await expect(card).toContainText('one line has no grams: it weighs more')
  await expect(card).not.toContainText('Clear')
  await server.send('POST', '/api/builds', { from: 'empty', name: 'Nothing yet' })
  const reference = { massG: 100, spreadG: 1, thrustG: null, priceCents: null, minutes: null }
  await server.send('POST', '/api/builds', { from: 'reference', name: 'Humbug', reference })
  const { entries } = await server.json<{ entries: { id: string; name: string }[] }>('/api/builds')
  const idOf = (name: string) => entries.find(entry => entry.name === name)!.id
  await app.goto(`${server.address}/builds/${idOf('Nothing yet')}/record?view=card`)
  await expect(app.getByText('a card is made from the first line on')).toBeVisible()
  await expect(app.getByRole('img', { name: /^Weight card/ })).toHaveCount(0)
  await app.goto(`${server.address}/builds/${idOf('Humbug')}/record?view=card`)
  await expect(app.getByRole('heading', { name: 'Record', exact: true })).toBeVisible()
  await expect(app.getByRole('tab', { name: 'Card and labels' })).toHaveCount(0)
  await expect(app.getByRole('img', { name: /^Weight card/ })).toHaveCount(0)
})

test('a photo of a weighing hangs on it, and on the card only where that is asked for', async ({ app, server }) => {
  await server.bringIn('sherbet')
  const { build, revision } = await server.json<{ build: Build; revision: number }>('/api/builds/sherbet')
  const observation = {
    ...{ id: 'o', title: 'dry aircraft', takenAt: '2026-11-01T10:00:00.000Z', scaleId: 's', scaleName: 'kitchen' },
    ...{ checkId: null, displaysG: [30], tareDisplayG: null, valueG: 30, contributions: {}, state: 'held' },
    subjects: build.lines.slice(0, 2).map(({ id, slot, quantity, mass }) => ({ id, slot, quantity, mass })),
    pictureIds: [],
  }
  const command = { type: 'observation.put', observation }
  await server.send('POST', '/api/builds/sherbet/commands', { command }, { 'if-match': `"${revision}"` })
  await app.goto(`${server.address}/builds/sherbet/weigh?pan=whole`)
  const row = app.getByRole('row', { name: /dry aircraft/ })
  const buffer = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#c22' } })
    .png()
    .toBuffer()
  await row.getByRole('button', { name: 'Picture of dry aircraft' }).click()
  // One that takes long is stopped, and leaves nothing behind.
  await app.route('**/api/pictures', () => undefined)
  await row.locator('input[type=file]').setInputFiles({ name: 'pan.png', mimeType: 'image/png', buffer })
  await row.getByRole('button', { name: 'Stop' }).click()
  await expect(row.getByRole('alert')).toHaveText('Stopped. Nothing was kept.')
  await expect(row.getByRole('img')).toHaveCount(0)
  await app.unroute('**/api/pictures')
  await written(app, () =>
    row.locator('input[type=file]').setInputFiles({ name: 'pan.png', mimeType: 'image/png', buffer }),
  )
  await expect(row.getByRole('img', { name: 'Picture of dry aircraft' })).toBeVisible()
  await app.goto(`${server.address}/builds/sherbet/record?view=card`)
  const card = app.getByRole('img', { name: /^Weight card of Sherbet/ })
  await expect(card).toBeVisible()
  await expect(card.locator('image')).toHaveCount(0)
  await app.getByRole('checkbox', { name: 'photo of a weighing' }).check()
  await expect(card.locator('image')).toHaveAttribute('href', /^data:image\/jpeg;base64,/)
  const download = app.waitForEvent('download')
  await app.getByRole('button', { name: /PNG/ }).click()
  const kept = await sharp(await (await download).path())
    .raw()
    .toBuffer({ resolveWithObject: true })
  let red = 0
  for (let at = 0; at < kept.data.length; at += kept.info.channels)
    if (kept.data[at]! > 180 && kept.data[at + 1]! < 60 && kept.data[at + 2]! < 60) red++
  expect(red / (kept.info.width * kept.info.height)).toBeGreaterThan(0.02)
  await app.goto(`${server.address}/builds/sherbet/record`)
  await expect(app.getByText('dry aircraft, 30.00 g: a picture added', { exact: true })).toBeVisible()
})

test('two totals of one craft: what changed between is named, what remains beyond its ± is kept among the findings', async ({
  app,
  server,
}) => {
  await server.bringIn('sherbet')
  const read = () => server.json<{ build: Build; revision: number }>('/api/builds/sherbet')
  const weigh = async (id: string, day: string, valueG: number) => {
    const { build, revision } = await read()
    const dry = build.lines.filter(
      ({ state, slot, role }) => state === 'fitted' && slot !== 'pack' && role !== 'payload',
    )
    const observation = {
      ...{
        id,
        title: 'dry aircraft',
        takenAt: `${day}T10:00:00.000Z`,
        scaleId: 's',
        scaleName: 'kitchen',
        checkId: null,
      },
      ...{ displaysG: [valueG], tareDisplayG: null, valueG, contributions: { [`weighing:${id}`]: 0.02 } },
      subjects: dry.map(({ id: line, slot, quantity, mass, edition }) => ({ id: line, slot, quantity, mass, edition })),
      ...{ state: 'held', pictureIds: [] },
    }
    const command = { type: 'observation.put', observation }
    await server.send('POST', '/api/builds/sherbet/commands', { command }, { 'if-match': `"${revision}"` })
  }
  await weigh('one', '2026-11-01', 30)
  await weigh('two', '2026-11-03', 31.4)
  await app.goto(`${server.address}/builds/sherbet/record?view=outcomes`)
  const said = app.locator('.finding', { hasText: 'no line was changed between' })
  await expect(said).toContainText('+1.40 g')
  await written(app, () => said.getByRole('button', { name: 'Keep it among the findings' }).click(), '/api/kept')
  await said.getByRole('link', { name: 'Kept among the findings' }).click()
  await expect(app.getByText('no line was changed between')).toBeVisible()
})
