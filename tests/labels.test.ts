import { expect, test } from 'vitest'
import { labelUses, readLabels } from '../database/labels'
import { mailingsWithTotals } from '../database/mailings'
import { demoInBrowser } from './demo-in-browser'
import { until } from './installation'

const { satchel, visitor, page, seen } = demoInBrowser(400)
const button = (name: string | RegExp) => page().getByRole('button', { name, exact: true })
const side = (name: string) => page().getByRole('navigation', { name, exact: true })
const idOf = (label: string) => readLabels(satchel.db).find(({ name }) => name === label)?.id
const uses = (label: string, kind: string) =>
  labelUses(satchel.db).filter((use) => use.labelId === idOf(label) && use.kind === kind)
const sale = () =>
  mailingsWithTotals(satchel.db).find(({ name }) => name === 'Gale season sale')!.id

test('a label is made where it is put on, by its key, and taken off again', async () => {
  await page().goto(`${satchel.url}/mail?mailing=${sale()}`)
  await page().getByRole('heading', { name: 'Gale season sale' }).first().waitFor()
  await page().keyboard.press('l')
  await seen('Labels of Gale season sale')
  const field = page().getByLabel('Find or add a label')
  expect(await field.inputValue()).toBe('')
  await page().getByRole('checkbox', { name: /^Sale/ }).waitFor()
  expect(await page().getByRole('checkbox', { name: /^Sale/ }).isChecked()).toBe(true)
  await visitor.expectAccessible()
  await field.fill('spring  fair')
  await page().keyboard.press('Enter')
  await until('it is on', () => uses('spring fair', 'mailing').length === 1)
  await page()
    .getByRole('checkbox', { name: /^spring fair/ })
    .waitFor()
  // By the name of one that is there, however it is written, that one is meant.
  await field.fill('WORKSHOP')
  await page().keyboard.press('Enter')
  await until('that one is on', () => uses('Workshop', 'mailing').some((u) => u.itemId === sale()))
  await page()
    .getByRole('checkbox', { name: /^Workshop/ })
    .uncheck()
  await until('it is off', () => !uses('Workshop', 'mailing').some((u) => u.itemId === sale()))
  await button('Done').click()
  await side('Mailings').locator('.label-mark', { hasText: 'spring fair' }).waitFor()
})

test('a list is narrowed to a label, stands under labels, and says so in its address', async () => {
  await page().getByLabel('Label', { exact: true }).selectOption({ label: 'spring fair (1)' })
  const rows = side('Mailings').locator('.side-item')
  await until('one is left', async () => (await rows.count()) === 1)
  await page().waitForURL(new RegExp(`label=${idOf('spring fair')}`))
  await page().reload()
  await until('one is left after that, too', async () => (await rows.count()) === 1)
  await page().getByLabel('Label', { exact: true }).selectOption('')
  await button('Group').click()
  await side('Mailings').getByText('No label', { exact: true }).waitFor()
  await until(
    'it is under each of its three',
    async () => (await rows.filter({ hasText: 'Gale season sale' }).count()) === 3,
  )
  await visitor.expectAccessible()
  await button('Group').click()
})

test('sequences and sign-ups have them, and a sequence’s copy too', async () => {
  await page().goto(`${satchel.url}/sequences?label=${idOf('Newcomers')}`)
  await until(
    'two are left',
    async () => (await side('Sequences').locator('.side-item').count()) === 2,
  )
  await button('More').click()
  await page().getByRole('menuitem', { name: 'Labels…' }).click()
  await page()
    .getByRole('checkbox', { name: /^Festival/ })
    .check()
  await until('it is on', () => uses('Festival', 'sequence').length === 1)
  await button('Done').click()
  await button('More').click()
  await page().getByRole('menuitem', { name: 'Duplicate' }).click()
  await until('the copy has it', () => uses('Festival', 'sequence').length === 2)
  await page().goto(`${satchel.url}/sign-ups?label=${idOf('Newcomers')}`)
  await until(
    'they are left',
    async () =>
      (await side('Sign-ups').locator('.side-item').count()) ===
      uses('Newcomers', 'sign-up').length,
  )
})

test('the palette finds a label and what has it; the calendar and the results are narrowed by it', async () => {
  await page().keyboard.press('Control+k')
  await page().getByLabel('Find or do anything').fill('gale sea')
  const found = page().getByRole('option', { name: /Gale season.*Label, on \d+ mailings/ })
  await found.click()
  await page().waitForURL(new RegExp(`/mail\\?.*label=${idOf('Gale season')}`))
  await page().goto(`${satchel.url}/mail/calendar`)
  const planned = page().locator('[data-mailing]')
  await planned.filter({ hasText: 'Offer:' }).first().waitFor()
  await page()
    .getByLabel('Label', { exact: true })
    .selectOption(String(idOf('Gale season')))
  await until(
    'others are not shown',
    async () =>
      (await planned.filter({ hasText: 'Offer:' }).count()) === 0 && (await planned.count()) > 0,
  )
  await visitor.expectAccessible()
  await page().goto(`${satchel.url}/results/account`)
  await page().getByRole('heading', { name: 'By label' }).waitFor()
  const row = page()
    .getByRole('row')
    .filter({ has: page().getByRole('link', { name: 'Workshop', exact: true }) })
  expect(await row.innerText()).toMatch(/^Workshop\s+9\b/)
  await page().getByRole('link', { name: 'Workshop', exact: true }).click()
  await until('its mailings are left', async () => {
    const names = await side('Results').locator('.side-item .truncate').allInnerTexts()
    return names.length > 0 && names.every((name) => name.startsWith('Workshop'))
  })
})

test('labels are renamed, merged and deleted, and a deleted one comes back whole', async () => {
  await page().goto(`${satchel.url}/settings/labels`)
  const name = page().getByLabel('Name of spring fair')
  await name.fill('Festival')
  await name.press('Tab')
  await seen('There is a label with this name already. Merge the two instead.')
  visitor.errors.splice(0) // the refusal stands in the console, as it should
  await page().reload()
  const on = uses('Festival', 'sequence').length
  await page().getByRole('button', { name: 'Merge spring fair' }).click()
  await page().getByLabel('All that has it gets, in its place,').selectOption({ label: 'Festival' })
  await button('Merge').click()
  await until('the one has what the other had', () => uses('Festival', 'mailing').length === 1)
  expect(uses('Festival', 'sequence')).toHaveLength(on)
  expect(idOf('spring fair')).toBeUndefined()
  await visitor.expectAccessible()
  await page().getByRole('button', { name: 'Delete Festival' }).click()
  await until('it is gone', () => idOf('Festival') === undefined)
  await page().locator('[aria-live]').getByRole('button', { name: 'Undo' }).click()
  await until('it is back on all', () => uses('Festival', 'sequence').length === on)
})
