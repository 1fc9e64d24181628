import { expect, test } from 'vitest'
import { countMembers, readSegments } from '../database/segments'
import { one, q } from '../database'
import { demoInBrowser } from './demo-in-browser'
import { until } from './installation'

/** Asking in SQL; and segments reached by their words from anywhere. */
const { satchel, visitor, page, seen } = demoInBrowser(300)

async function ask(query: string) {
  await page().getByRole('textbox', { name: 'Query' }).click()
  await page().keyboard.press('Control+a')
  await page().keyboard.insertText(query)
  await page().keyboard.press('Control+Enter')
}

test('what is typed is completed from the views', async () => {
  await page().goto(`${satchel.url}/people/sql`)
  await seen('What can be asked')
  await page().getByRole('textbox', { name: 'Query' }).click()
  await page().keyboard.press('Control+a')
  await page().keyboard.type('select * from subscr')
  await page().locator('.cm-tooltip-autocomplete li').filter({ hasText: 'subscriptions' }).click()
  await until('the view is written out', async () =>
    (await page().getByRole('textbox', { name: 'Query' }).innerText()).includes(
      'from subscriptions',
    ),
  )
  await visitor.expectAccessible()
})

test('a query is answered with its rows; who they are leads to the person', async () => {
  await ask('select id, address, town from people order by id limit 7')
  await seen('7 rows')
  const first = one(satchel.db, q.selectFrom('people').select(['id', 'address']).orderBy('id'))!
  await page()
    .getByRole('link', { name: String(first.id), exact: true })
    .waitFor()
  await seen(first.address)
  await visitor.expectAccessible()
})

test('a fault is told in words; what is closed stays closed', async () => {
  await ask('select adress from people')
  await seen('No such column: adress.')
  await ask('select * from users')
  await seen('Nothing answers to this query.')
  await ask('delete from people')
  await seen('A query begins with SELECT or WITH.')
})

test('a query that would take forever is ended, and the next one is answered', async () => {
  await ask('with recursive n(i) as (select 1 union all select i + 1 from n) select max(i) from n')
  // Ten seconds of the processor are many on a busy machine.
  await page().getByText('This query takes longer than 10 seconds.').waitFor({ timeout: 240_000 })
  await ask('select count(*) as everybody from people')
  await seen('everybody')
  await seen('1 row')
})

test('the people of a query become a segment that stays, and comes back when its deletion is undone', async () => {
  await ask('select person_id from orders group by 1 having count(*) > 1')
  await page().getByLabel('Name of the segment').fill('Ordered again')
  await page().getByRole('button', { name: 'Save as segment' }).click()
  await page().waitForURL(/segments\/\d+$/)
  await seen('By this query in SQL')
  await visitor.expectAccessible()
  const segment = () => readSegments(satchel.db).find(({ name }) => name === 'Ordered again')
  const { id } = segment()!
  const found = satchel.db.sqlite
    .prepare('select count(*) from (select 1 from orders group by person_id having count(*) > 1)')
    .pluck()
    .get()
  const members = () => countMembers(satchel.db, { kind: 'segment', segmentId: id }, Date.now())
  expect(members()).toBe(found)
  await page().getByRole('button', { name: 'Delete' }).click()
  await seen('Ordered again is deleted.')
  expect(segment()).toBeUndefined()
  await page().getByRole('button', { name: 'Undo' }).click()
  await page().waitForURL(/segments\/\d+$/)
  expect(members()).toBe(found)
})

test('the palette takes a rule as text, and finds segments by name', async () => {
  await page().keyboard.press('Control+k')
  await page().getByRole('combobox').fill('joined in the last 400 days and tier is keen')
  await page()
    .getByRole('option', { name: /Segment by this rule/ })
    .click()
  await page().waitForURL(/segments\/new/)
  await seen('joined in the last 400 days and tier is keen')
  await page().keyboard.press('Escape')
  await page().keyboard.press('Control+k')
  await page().getByRole('combobox').fill('ordered again')
  await page()
    .getByRole('option', { name: /Ordered again/ })
    .click()
  await page().waitForURL(/segments\/\d+$/)
})

test('the browser’s console said no error but those that were provoked', () => {
  expect(visitor.errors.filter((error) => !/status of (422|503)/.test(error))).toEqual([])
})
