import { readFileSync } from 'node:fs'
import { expect, test } from './server'

test.beforeEach(async ({ server }) => {
  await server.bringIn('marzipan')
})

test('a chart is read out by arrow keys and kept as picture, drawing and table', async ({ app, server }) => {
  await server.send('PUT', '/api/settings', { decimal: 'comma' })
  await app.goto(`${server.address}/builds/marzipan/packs`)
  const chart = app.getByRole('figure', { name: 'Minutes against all-up weight' })
  const points = chart.getByRole('group', { name: /arrow keys read them/ })
  await expect(chart.locator('svg circle').first()).toBeVisible()
  await points.focus()
  const read = chart.getByRole('status')
  await app.keyboard.press('ArrowRight')
  await expect(read).toHaveText(/^as built · P4: all-up weight 228,\d+ g, minutes \d,\d+ min, Clear \(1 of 6\)$/)
  await app.keyboard.press('End')
  await expect(read).toHaveText(/Over \(6 of 6\)$/)
  await app.keyboard.press('ArrowRight')
  await expect(read).toHaveText(/\(6 of 6\)$/)
  await app.keyboard.press('Tab')
  await expect(read).toBeEmpty()
  const keep = async (format: string) => {
    const coming = app.waitForEvent('download')
    await chart.getByRole('button', { name: /as a file$/ }).click()
    await app.getByRole('menuitem', { name: format }).click()
    const file = await coming
    expect(file.suggestedFilename()).toBe(`Marzipan, Minutes against all-up weight.${format.toLowerCase()}`)
    return readFileSync(await file.path())
  }
  const table = (await keep('CSV')).toString()
  // A table has the point, whatever the screen has.
  expect(table).toMatch(
    /^Loadout,"All-up weight, g","Minutes, min",Verdict\r\nas built · P4,228\.\d+,\d\.\d+,Clear\r\n/,
  )
  expect(table.trim().split('\r\n')).toHaveLength(7)
  const drawing = (await keep('SVG')).toString()
  expect(drawing).toMatch(/^<svg [^>]*xmlns="http:\/\/www\.w3\.org\/2000\/svg"/)
  expect(drawing).not.toMatch(/class=|var\(--/)
  expect(drawing).toContain('<title>Marzipan, Minutes against all-up weight</title>')
  const picture = await keep('PNG')
  expect(picture.subarray(1, 4).toString()).toBe('PNG')
  const [width, height] = [picture.readUInt32BE(16), picture.readUInt32BE(20)]
  expect(width).toBeGreaterThan(1000)
  expect(height).toBeGreaterThan(400)
})

const printed = [
  ['parts', 'Parts, one line each'],
  ['aim', 'This build has'],
  ['packs?view=go', 'go list of'],
  ['fit?view=buy', 'Sum of what has a price'],
  ['assemble?view=connections', 'connections'],
  ['assemble?view=maiden', 'first flight'],
] as const
/** Widths of the printable part of A4 and of Letter with the margins of the sheets, in px of 96 to the inch. */
const papers = { A4: Math.round(((210 - 24) / 25.4) * 96), Letter: Math.round((8.5 - 24 / 25.4) * 96) }

for (const [paper, width] of Object.entries(papers))
  test(`what is printed on ${paper} has a head, no buttons and no column cut off, dark screen or not`, async ({
    app,
    server,
  }) => {
    await server.send('PUT', '/api/settings', { theme: 'dark' })
    await app.emulateMedia({ media: 'print', colorScheme: 'dark' })
    await app.setViewportSize({ width, height: 1000 })
    for (const [path, says] of printed) {
      await app.goto(`${server.address}/builds/marzipan/${path}`)
      const body = app.locator('.build-body')
      if (path === 'parts') await expect(app.getByRole('grid', { name: says })).toBeVisible()
      else await expect(body).toContainText(says)
      const head = app.locator('.print-head')
      await expect(head).toBeVisible()
      await expect(head).toContainText(
        /Marzipan.*248\.\d g ± 2\.\d.*Too close to call, 1\.\d g headroom under United States/s,
      )
      await expect(app.getByRole('button').and(app.locator(':visible'))).toHaveCount(0)
      const cut = await body.evaluate(
        (element, paperWidth) =>
          [...element.querySelectorAll('th, td, li, p')]
            .filter(one => one.checkVisibility() && one.getBoundingClientRect().right > paperWidth + 1)
            .map(one => one.textContent!.trim()),
        width,
      )
      expect(cut, path).toEqual([])
      expect(await app.evaluate(() => getComputedStyle(document.body).backgroundColor)).toBe('rgb(255, 255, 255)')
      const ink = await body.evaluate(element => getComputedStyle(element).color.match(/\d+/g)!.map(Number))
      expect(Math.max(...ink.slice(0, 3))).toBeLessThan(80)
    }
  })
