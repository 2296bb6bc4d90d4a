import type { Locator } from '@playwright/test'

/** Opens a list of choices, does something with it, and waits until it is closed again. */
async function inListOf<T>(field: Locator, work: (list: Locator) => Promise<T>): Promise<T> {
  const list = field.page().locator(`[id="${await field.getAttribute('aria-controls')}"]`)
  await field.click()
  const result = await work(list)
  await list.waitFor({ state: 'hidden' })
  return result
}

/** Chooses from a list of choices by what the choice is called. */
export function choose(field: Locator, name: string | RegExp): Promise<void> {
  const exact = typeof name === 'string'
  return inListOf(field, list => list.getByRole('option', { name, exact }).click())
}

/** What a list of choices offers, in its order. */
export function offered(field: Locator): Promise<string[]> {
  return inListOf(field, async list => {
    const options = list.getByRole('option')
    await options.first().waitFor()
    const names = await options.allTextContents()
    await field.page().keyboard.press('Escape')
    return names.map(name => name.trim())
  })
}
