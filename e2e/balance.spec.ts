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
    await expect(app.getByText(/pieces to scale, (none|4) of them placed by you/)).toBeVisible()
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
  await written(app, async () => {
    // The nose is to the left.
    for (let steps = 0; steps < 20 && !(await hangs.textContent())!.includes('in the middle'); steps++)
      await app.keyboard.press('ArrowLeft')
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
