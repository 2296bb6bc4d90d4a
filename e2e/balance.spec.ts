import { filledBoxes } from './pdf'
import { demoBuilds, expect, test, written, type OwnServer } from './server'

interface Place {
  lineId: string
  number: number
  xMm: number
  yMm: number
  zMm: number
}
const placesOf = async (server: OwnServer, id: string, lineId?: string) =>
  (await allPlacesOf(server, id)).filter(place => lineId === undefined || place.lineId === lineId)
const allPlacesOf = async (server: OwnServer, id: string) =>
  (await server.json<{ build: { places: { pieces: Place[] } | null } }>(`/api/builds/${id}`)).build.places?.pieces ?? []

test('every build of the demo hangs on first opening, with what is assumed marked', async ({ app, server }) => {
  await server.bringIn(...demoBuilds)
  for (const id of demoBuilds) {
    await app.goto(`${server.address}/builds/${id}/balance`)
    await expect(app.getByTestId('hangs')).toContainText('The bob hangs')
    await expect(app.getByText(/pieces, (none|4) placed by you/)).toBeVisible()
    for (const title of ['From above', 'From the left side', 'From the front']) {
      const drawing = app.getByRole('group', { name: title })
      expect(await drawing.getByRole('button').count(), `${id}, ${title}`).toBeGreaterThan(10)
    }
    expect(await app.locator('.desk').textContent()).not.toContain('NaN')
  }
  expect((await placesOf(server, 'marzipan')).map(place => place.lineId)).toEqual(['camera', 'gps', 'lead', 'cradle'])
})

test('by keyboard alone the pack is chosen, moved until it hangs true, and taken back', async ({ app, server }) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/balance`)
  const hangs = app.getByTestId('hangs')
  await expect(hangs).toContainText('behind the middle')
  const pack = app.getByRole('group', { name: 'From above' }).getByRole('button', { name: /^P7:/ })
  for (let tabs = 0; tabs < 60 && !(await pack.evaluate(one => one === document.activeElement)); tabs++)
    await app.keyboard.press('Tab')
  await expect(pack).toBeFocused()
  await app.keyboard.press('Enter')
  await expect(app.getByRole('heading', { name: 'P7', exact: true })).toBeVisible()
  const [, mm] = /Slide P7 ([\d.]+) mm forward/.exec((await hangs.textContent())!)!
  await written(app, async () => {
    // The nose is to the left; every step is half a millimetre, and steps one after another are one change.
    for (let steps = Math.round(Number(mm) / 0.5); steps > 0; steps--) await app.keyboard.press('ArrowLeft')
  })
  await expect(hangs).toContainText('P7 lies where it belongs.')
  await expect(app.getByText('Hangs true', { exact: true })).toBeVisible()
  const [place] = await placesOf(server, 'marzipan', 'p7')
  expect(place).toMatchObject({ lineId: 'p7', number: 0, yMm: 0 })
  expect(place!.xMm).toBeGreaterThan(1)
  await expect(pack).toBeFocused()
  await app.keyboard.press('z')
  await expect(hangs).toContainText('behind the middle')
  await expect.poll(() => placesOf(server, 'marzipan', 'p7')).toEqual([])
})

test('a piece is dragged in a drawing and kept once; its strap goes along, and the strip shows it chosen', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/balance`)
  const above = app.getByRole('group', { name: 'From above' })
  const pack = above.getByRole('button', { name: /^P7:/ })
  const box = (await pack.locator('rect').boundingBox())!
  const strap = above.getByRole('button', { name: /^Rubberised strap/ })
  const strapAt = (await strap.boundingBox())!.x
  const revision = async () => (await server.json<{ revision: number }>('/api/builds/marzipan')).revision
  const before = await revision()
  const [x, y] = [box.x + 8, box.y + box.height / 2]
  await written(app, async () => {
    await app.mouse.move(x, y)
    await app.mouse.down()
    await app.mouse.move(x - 30, y + 1, { steps: 12 })
    await expect(app.getByTestId('hangs')).toContainText('ahead of the middle')
    await app.mouse.up()
  })
  const [place] = await placesOf(server, 'marzipan', 'p7')
  // Near the middle line it snaps onto it.
  expect(place).toMatchObject({ lineId: 'p7', yMm: 0 })
  expect(place!.xMm).toBeGreaterThan(8)
  expect(await revision()).toBe(before + 1)
  expect((await strap.boundingBox())!.x).toBeLessThan(strapAt - 15)
  await expect(app.locator('[aria-label^="P7"][aria-pressed=true], [data-line=p7].selected').first()).toBeAttached()
})

test('what is typed moves a piece; bad input says so and moves nothing; where it usually sits is one press away', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/balance?piece=camera%230`)
  const inspector = app.getByRole('complementary', { name: 'Inspector' })
  const forward = inspector.getByLabel('Forward')
  await written(app, async () => {
    await forward.fill('52,5 mm')
    await app.keyboard.press('Enter')
  })
  expect(await placesOf(server, 'marzipan', 'camera')).toMatchObject([{ xMm: 52.5 }])
  for (const [label, text, sentence] of [
    ['Forward', '10000', 'A place is from −500 to 500 mm.'],
    ['Up', 'NaN', /number/i],
    ['Known to ±, one σ', '-1', 'How well it is known: from 0 to 50 mm.'],
    ['Turned, °', '900', 'A turn is from −360 to 360 degrees.'],
  ] as const) {
    await inspector.getByLabel(label, { exact: true }).fill(text)
    await app.keyboard.press('Enter')
    await expect(inspector.getByRole('alert').last()).toHaveText(sentence)
  }
  expect(await placesOf(server, 'marzipan', 'camera')).toMatchObject([{ xMm: 52.5 }])
  await written(app, () => inspector.getByRole('button', { name: 'Where it usually sits' }).click())
  expect(await placesOf(server, 'marzipan', 'camera')).toEqual([])
})

test('a pair moves in the mirror; the pack goes below; the slide table leads to a loadout', async ({ app, server }) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/balance?piece=motors%230`)
  const inspector = app.getByRole('complementary', { name: 'Inspector' })
  await written(app, async () => {
    await inspector.getByLabel('Left', { exact: true }).fill('-60')
    await app.keyboard.press('Enter')
  })
  const motors = await placesOf(server, 'marzipan', 'motors')
  expect(motors.map(({ number, yMm }) => [number, yMm])).toEqual([
    [0, -60],
    [1, 60],
  ])
  const motor = app.getByRole('group', { name: 'From above' }).locator('[data-piece="motors#0"] ellipse')
  const { x, y, width, height } = (await motor.boundingBox())!
  await written(app, async () => {
    await app.mouse.move(x + width / 2, y + height / 2)
    await app.mouse.down()
    await app.mouse.move(x + width / 2 - 20, y + height / 2, { steps: 8 })
    await app.mouse.up()
  })
  const [right, left] = await placesOf(server, 'marzipan', 'motors')
  expect(right!.xMm).toBeGreaterThan(motors[0]!.xMm + 5)
  expect(left!.xMm).toBe(right!.xMm)
  expect(left!.yMm).toBe(-right!.yMm)
  await written(app, () => app.getByText('Pack below', { exact: true }).click())
  await expect(app.getByText('Below the prop plane')).toBeVisible()
  await app.getByRole('row', { name: /^P4/ }).getByRole('button').first().click()
  await expect(app).toHaveURL(/with=as-built\.p4/)
  await expect(app.getByTestId('hangs')).toContainText('P4')
})

test('on the phone the sentence comes first, nothing scrolls sideways, and the table can be read', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan')
  await app.setViewportSize({ width: 390, height: 844 })
  await app.goto(`${server.address}/builds/marzipan/balance`)
  await expect(app.getByTestId('hangs')).toBeInViewport()
  expect(await app.evaluate(() => document.documentElement.scrollWidth)).toBe(390)
  // Nothing is cut off at the right edge either.
  const widest = await app
    .locator('.answers p, .answers .tile')
    .evaluateAll(all => Math.max(...all.map(one => one.getBoundingClientRect().right)))
  expect(widest).toBeLessThanOrEqual(390)
  const row = app.getByRole('row', { name: /^P7/ })
  await row.scrollIntoViewIfNeeded()
  await expect(row.getByRole('button').first()).toBeInViewport()
})

test('what the camera sees: props in the picture, the tilt that clears them, and a lens of which too little is said', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/balance?view=camera`)
  const seen = app.getByRole('region', { name: /^What Digital nano camera/ })
  await expect(seen.getByRole('img', { name: 'The picture at 20°: props are in it' })).toBeVisible()
  const least = Number(/No props from ([\d.]+)°/.exec((await seen.getByTestId('smallest').textContent())!)![1])
  expect(least).toBeGreaterThan(25)
  const tilt = seen.getByRole('slider')
  await tilt.focus()
  const above = Math.ceil(least * 2) / 2
  for (let deg = 20; deg < above; deg += 0.5) await app.keyboard.press('ArrowRight')
  await expect(seen.getByRole('img', { name: /no props in it/ })).toBeVisible()
  await expect(seen.getByText('no props in the picture')).toBeVisible()
  await written(app, () => seen.getByRole('button', { name: 'It is tilted so' }).click())
  const [camera] = await placesOf(server, 'marzipan', 'camera')
  expect(camera).toMatchObject({ tiltDeg: above, xMm: 52 })

  await server.bringIn('treacle')
  await app.goto(`${server.address}/builds/treacle/balance?view=camera`)
  await expect(app.locator('.camera-view .note').first()).toContainText('What it sees is not known: say')
})

test('a drawing is come nearer to by button, key and two fingers; the scale bar says how near, and a drag goes as far', async ({
  app,
  browser,
  server,
}) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/balance`)
  const above = app.getByRole('group', { name: 'From above' })
  await expect(above.locator('.bar text')).toHaveText('50 mm')
  const nearer = app.getByRole('button', { name: 'From above: come nearer' })
  for (let i = 0; i < 3; i++) await nearer.click()
  await expect(above.locator('.bar text')).toHaveText('10 mm')
  const pack = above.locator('[data-piece="p7#0"]')
  const placeOf = async () => (await placesOf(server, 'marzipan', 'p7'))[0]
  const before = await placeOf()
  const box = (await pack.boundingBox())!
  // Without its stroke, which is as wide on the screen at any distance.
  const bar = await above
    .locator('.bar path')
    .evaluate((path: SVGPathElement) => path.getBBox().width * path.getScreenCTM()!.a)
  await app.mouse.move(box.x + box.width / 2 + 5, box.y + box.height / 2 + 5)
  await app.mouse.down()
  await app.mouse.move(box.x + box.width / 2 + 5, box.y + box.height / 2 + 5 + bar, { steps: 8 })
  await written(app, () => app.mouse.up())
  // The nose is left, so down is to the left of the craft: as far as the bar is long.
  expect((await placeOf())!.yMm - (before?.yMm ?? 0)).toBeCloseTo(10, 0)
  await pack.focus()
  await app.keyboard.press('-')
  await expect(above.locator('.bar text')).toHaveText('20 mm')
  await app.getByRole('button', { name: 'From above: show all of it' }).click()
  await expect(above.locator('.bar text')).toHaveText('50 mm')

  const phone = await browser.newPage({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true })
  await phone.goto(`${server.address}/builds/marzipan/balance`)
  const drawing = phone.getByRole('group', { name: 'From above' })
  await drawing.scrollIntoViewIfNeeded()
  const whole = (await drawing.boundingBox())!
  const session = await phone.context().newCDPSession(phone)
  const [x, y] = [whole.x + whole.width / 2, whole.y + 12]
  const fingers = (apart: number, dx = 0) => [-1, 1].map((side, id) => ({ x: x + dx + (side * apart) / 2, y, id }))
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', touchPoints: { x: number; y: number; id: number }[]) =>
    session.send('Input.dispatchTouchEvent', { type, touchPoints })
  await touch('touchStart', fingers(60))
  for (const apart of [80, 120, 160, 200]) await touch('touchMove', fingers(apart))
  await touch('touchEnd', [])
  await expect(drawing.locator('.bar text')).not.toHaveText('50 mm')
  const shown = () => drawing.locator(':scope > g').first().getAttribute('transform')
  const still = await shown()
  await touch('touchStart', [{ x: whole.x + 8, y: whole.y + 8, id: 0 }])
  for (const dx of [10, 30, 60]) await touch('touchMove', [{ x: whole.x + 8 + dx, y: whole.y + 8, id: 0 }])
  await touch('touchEnd', [])
  expect(await shown()).not.toBe(still)
  await phone.close()
})

test('other things are moved by the least that helps, within what was said; bad limits say so', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/balance`)
  await app.getByText('Move other things than the pack').click()
  const limit = (name: RegExp) => app.locator('.limits').getByLabel(name)
  await limit(/^Digital nano camera/).fill('far')
  await expect(limit(/^Digital nano camera/)).toHaveAccessibleDescription(/is not a number/)
  await limit(/^Digital nano camera/).fill('300')
  await expect(limit(/^Digital nano camera/)).toHaveAccessibleDescription('From 0 to 200 mm.')
  await limit(/^Digital nano camera/).fill('1')
  const told = app.locator('.told')
  await expect(told).toContainText(/Digital nano camera, 14 mm\s*1.0 mm forward/)
  await expect(told).toContainText(/Then it still hangs 1\.\d mm tail-heavy\./)
  await limit(/^Digital nano camera/).fill('60')
  await limit(/^Small satellite receiver/).fill('60')
  await expect(told).toContainText('Then it hangs true.')
  await written(app, () => app.getByRole('button', { name: 'Move them' }).click())
  await expect(app.locator('.answer')).toContainText('Hangs true')
  await expect(app.getByText('Move other things than the pack')).toBeHidden()
  await app.keyboard.press('Control+z')
  await expect(app.locator('.answer')).toContainText('Tail-heavy')
})

test('beside the other builds it is told how lazily each turns; the go list and Packs say what balance makes of a loadout', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan', 'sherbet')
  await app.goto(`${server.address}/builds/marzipan/balance`)
  await app.getByText('Beside your other builds').click()
  const rows = app.locator('details', { hasText: 'Beside your other builds' }).locator('tbody tr')
  await expect(rows).toHaveCount(2)
  await expect(rows.nth(0)).toContainText('Sherbet')
  await expect(rows.nth(1)).toContainText('Marzipan')
  const level = (await app.getByText(/^level .* : 1 instead of/).textContent())!
  const [, share] = /level at least ([\d.]+) : 1/.exec(level)!

  await app.goto(`${server.address}/builds/marzipan/packs`)
  await expect(app.getByTestId('level')).toHaveText(`at least ${Number(share).toFixed(1)} : 1`)
  await app.goto(`${server.address}/builds/marzipan/balance`)
  const cell = app.getByRole('row', { name: /^P4/ }).getByRole('button').first()
  const lies = (await cell.locator('.figure').textContent())!.trim()
  await app.goto(`${server.address}/builds/marzipan/packs?view=go`)
  await expect(app.getByRole('row', { name: /P4.*as built/ })).toContainText(lies)
})

test('what is shaved, or fitted instead, says what it does to the bob', async ({ app, server }) => {
  await server.bringIn('marzipan', 'nougat')
  await app.goto(`${server.address}/builds/nougat/shave`)
  await app.locator('.step .name').first().click()
  await expect(app.getByTestId('bob')).toHaveText(
    /^The bob (stays where it is|goes \d\.\d mm (forward|back), to .*)\.$/,
  )
  await app.goto(`${server.address}/builds/marzipan/choosing?line=vtx`)
  await app.locator('[data-candidate="Oddfellow digital, open board"] .name').click()
  await expect(app.getByTestId('bob')).toHaveText('The bob stays where it is.')
})

test('the tape for the tray comes out of the printer as long as it is on the craft, on A4 and on Letter', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/balance`)
  const tape = app.getByRole('figure').filter({ has: app.getByRole('heading', { name: 'Tape for the tray' }) })
  await expect(tape.getByRole('img')).toHaveAccessibleName(/^Tape for the tray: P\d /)
  for (const format of ['A4', 'Letter'] as const) {
    // There is no print dialog here: the page is looked at as it would be given to one.
    await app.evaluate(() => {
      window.print = () => undefined
    })
    await tape.getByRole('button', { name: 'Print it, 1 : 1' }).click()
    await expect(app.locator('html.prints-one')).toHaveCount(1)
    const pdf = await app.pdf({ format, printBackground: true, preferCSSPageSize: false })
    const bars = filledBoxes(pdf).filter(
      ({ widthMm, heightMm }) => widthMm > 20 && Math.abs(widthMm / heightMm - 50 / 1.6) < 0.5,
    )
    expect(bars, format).toHaveLength(1)
    expect(Math.abs(bars[0]!.widthMm - 50), format).toBeLessThan(0.2)
    const { length } = await tape
      .locator('.ground')
      .evaluate((ground: SVGRectElement) => ({ length: ground.width.baseVal.value }))
    const grounds = filledBoxes(pdf).filter(({ heightMm }) => Math.abs(heightMm - 12) < 0.4)
    expect(
      grounds.some(({ widthMm }) => Math.abs(widthMm - length) < 0.4),
      format,
    ).toBe(true)
    await app.evaluate(() => window.dispatchEvent(new Event('afterprint')))
    await expect(app.locator('html.prints-one')).toHaveCount(0)
  }
})

test('another frame takes the motors along, leaves what was placed, and says so', async ({ app, server }) => {
  await server.bringIn('marzipan')
  const { build, revision } = await server.json<{ build: { lines: { id: string }[] }; revision: number }>(
    '/api/builds/marzipan',
  )
  const frame = build.lines.find(line => line.id === 'frame')!
  const wide = { ...frame, id: 'wide', name: 'Wide plates', state: 'candidate', insteadOf: 'frame', mass: null }
  await server.send(
    'POST',
    '/api/builds/marzipan/commands',
    { command: { type: 'lines.add', lines: [wide], beforeId: null }, note: '' },
    { 'if-match': `"${revision}"` },
  )
  const placed = await placesOf(server, 'marzipan')
  await app.goto(`${server.address}/builds/marzipan/parts?line=frame`)
  const inspector = app.getByRole('complementary', { name: 'Inspector' })
  await written(app, () => inspector.getByRole('button', { name: 'Fit Wide plates instead' }).click())
  await expect(
    app.getByText(/^Wide plates holds the motors now\. \d+ pieces sit where they usually do on it; 4 stay/),
  ).toBeVisible()
  expect(await placesOf(server, 'marzipan')).toEqual(placed)
})

test('arrangements stand side by side, and one is chosen; a piece in the props is marked and comes up in Fit', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan')
  await app.goto(`${server.address}/builds/marzipan/balance`)
  await app.getByText('Other arrangements').click()
  const rows = app.locator('details', { hasText: 'Other arrangements' }).locator('tbody tr')
  const row = (words: string) => rows.filter({ hasText: words })
  await expect(rows).toHaveText([
    /Pack above, along.*so it is/,
    /Pack above, across/,
    /Pack below, along/,
    /Pack below, across/,
    /Camera 10 mm back/,
    /Camera 5 mm back/,
    /Camera where it is.*no prop seen from .*so it is/,
    /Camera 5 mm forward/,
    /Camera 10 mm forward/,
    /Standoffs of 18 mm/,
    /Standoffs of 20 mm.*so it is/,
    /Standoffs of 22 mm/,
    /Standoffs of 25 mm/,
  ])
  for (const words of ['Pack above, across', 'Standoffs of 22 mm']) {
    await written(app, () => app.getByRole('button', { name: `Do it: ${words}` }).click())
    await expect(row(words)).toContainText('so it is')
    await app.keyboard.press('Control+z')
    await expect(row(words)).not.toContainText('so it is')
  }
  const clearFrom = async () =>
    Number(/seen from ([\d.]+)°/.exec((await row('Camera where it is').textContent()) ?? '')?.[1])
  const before = await clearFrom()
  await written(app, () => app.getByRole('button', { name: 'Do it: Camera 10 mm forward' }).click())
  await expect.poll(clearFrom).toBeLessThan(before)
  await app.keyboard.press('Control+z')
  await expect.poll(clearFrom).toBe(before)

  await expect(app.getByTestId('meetings')).toHaveCount(0)
  await app.locator('.pieces').getByRole('button', { name: 'Digital nano camera' }).click()
  const inspector = app.getByRole('complementary', { name: 'Inspector' })
  for (const [field, mm] of [
    ['Left', '50'],
    ['Up', '14'],
  ] as const) {
    await inspector.getByLabel(field, { exact: true }).fill(mm)
    await written(app, () => app.keyboard.press('Enter'))
  }
  await expect(app.getByTestId('meetings')).toContainText('Digital nano camera, 14 mm is in the props.')
  await expect(app.locator('.above .hit[data-piece="camera#0"]')).toHaveCount(1)
  await app.getByRole('link', { name: /Fit/ }).click()
  await expect(app.getByText('Digital nano camera, 14 mm is in the props', { exact: true })).toBeVisible()
})
