import { expect, test } from 'vitest'
import { all, one, q } from '../database'
import { countMembers, readSegments } from '../database/segments'
import { clockOf } from '../database/account'
import { countPeople, tasksOf } from '../database/people'
import { demoInBrowser } from './demo-in-browser'
import { until } from './installation'

/** People and segments as one works with them, in the demo account. */
const { satchel, visitor, page, seen } = demoInBrowser(600)
const total = async () =>
  Number((await page().locator('header [aria-live=polite]').innerText()).replace(/\D/g, ''))
const segment = (name: string) => readSegments(satchel.db).find((one) => one.name === name)

async function addRule(typed: string, option: string) {
  const box = page().getByRole('combobox', { name: 'Add a rule' })
  await box.fill(typed)
  await page().getByRole('option', { name: option, exact: true }).click()
}
/** Writes into a field as somebody with a keyboard does. */
async function write(label: string, text: string) {
  await page().getByLabel(label).click()
  await page().keyboard.press('Control+a')
  await page().keyboard.type(text)
  await page().keyboard.press('Enter')
}
/** Waits until the shown count is that of the rule as the database has it. */
async function counted(name: string) {
  await until('the count is shown', async () => {
    const saved = segment(name)
    return (
      saved !== undefined &&
      (await total()) === countMembers(satchel.db, saved.rule, clockOf(satchel.db, Date.now)())
    )
  })
}

test('a segment is made by typing what one knows, counted as one goes, undone, saved', async () => {
  await page().goto(`${satchel.url}/people/segments/new`)
  await seen('Or begin with one of these')
  await visitor.expectAccessible()
  await addRule('offers', 'On list Offers')
  await addRule('flying style', 'Flying style includes')
  await write('Value', 'stunt')
  await seen(/Flying style includes "stunt"/)
  await addRule('bought', 'Bought something')
  await seen(/bought over 0 times/)
  await page().getByRole('button', { name: 'Undo', exact: true }).click()
  await page()
    .getByText(/bought over 0 times/)
    .waitFor({ state: 'detached' })
  await page().keyboard.press('Escape')
  await page().getByLabel('Name of the segment').fill('Stunt offers')
  await page().getByRole('button', { name: 'Save segment' }).click()
  await page().waitForURL(/segments\/\d+$/)
  expect(segment('Stunt offers')!.rule).toMatchObject({
    kind: 'all',
    of: [
      { kind: 'on-list', state: 'subscribed' },
      { kind: 'field', key: 'flying_style', test: { is: 'includes', text: 'stunt' } },
    ],
  })
  await counted('Stunt offers')
  await visitor.expectAccessible()
})

test('a line becomes one of several, moves by keyboard, and the rule reads as text', async () => {
  await page().getByRole('button', { name: 'More for this line' }).nth(1).click()
  await page().getByRole('menuitem', { name: 'Add “or”…' }).click()
  await page().getByRole('combobox', { name: 'Add to this group' }).fill('joined')
  await page().getByRole('option', { name: 'Joined in the last days' }).click()
  await seen(/\(?Flying style includes "stunt" or joined in the last 30 days\)?/)
  await page().getByRole('button', { name: 'as text' }).click()
  const text = page().getByLabel('The rule as text')
  await text.fill('on list "Offers" and toun is "Orrin"')
  await page().getByRole('button', { name: 'Use this text' }).click()
  await seen('Nothing is known by “toun”')
  expect(
    await text.evaluate((box: HTMLTextAreaElement) =>
      box.value.slice(box.selectionStart, box.selectionEnd),
    ),
  ).toBe('toun')
  await visitor.expectAccessible()
  await text.fill(
    'on list "Offers" and (Flying style includes "stunt" or joined in the last 30 days)',
  )
  await page().getByRole('button', { name: 'Use this text' }).click()
  await page().getByRole('button', { name: 'Save changes' }).click()
  await until('it is saved', () => segment('Stunt offers')!.version === 2)
  await counted('Stunt offers')
})

test('why somebody is in it: each condition with its verdict and the fact', async () => {
  await page().getByRole('button', { name: 'Why' }).first().click()
  const dialog = page().getByRole('dialog')
  await dialog.getByText(/is in it/).waitFor()
  await dialog.getByText(/subscribed since \d+ \w+ \d{4}/).waitFor()
  await visitor.expectAccessible()
  await page().keyboard.press('Escape')
})

test('two who edit one segment: the second sees both and loses nothing', async () => {
  satchel.db.sqlite
    .prepare(
      "update segments set version = version + 1, name = 'Theirs' where name = 'Stunt offers'",
    )
    .run()
  await page().getByLabel('Name of the segment').fill('Mine')
  await page().getByRole('button', { name: 'Save changes' }).click()
  const both = page().getByRole('alert', { name: 'Two versions' })
  await both.getByText('Theirs', { exact: true }).last().waitFor()
  expect(await page().getByLabel('Name of the segment').inputValue()).toBe('Mine')
  await visitor.expectAccessible()
  await both.getByRole('button', { name: 'Take theirs' }).click()
  expect(await page().getByLabel('Name of the segment').inputValue()).toBe('Theirs')
  satchel.db.sqlite
    .prepare(
      "update segments set version = version + 1, name = 'Stunt offers' where name = 'Theirs'",
    )
    .run()
  await page().reload()
  await seen('Stunt offers')
})

test('a frozen copy keeps its people; what uses a segment keeps it from being deleted', async () => {
  await page().getByRole('button', { name: 'Freeze a copy' }).click()
  await seen('Frozen: its people stay as they were.')
  const frozen = readSegments(satchel.db).find(({ frozenAt }) => frozenAt !== null)!
  const kept = one(
    satchel.db,
    q
      .selectFrom('frozen_people')
      .select((eb) => eb.fn.countAll<number>().as('n'))
      .where('segment_id', '=', frozen.id),
  )!.n
  await until('its people are counted', async () => (await total()) === kept)
  await visitor.expectAccessible()
  await page().getByRole('button', { name: 'Delete' }).click()
  await page().waitForURL(/people$/)
  await page().getByRole('button', { name: 'Undo' }).waitFor()
  expect(readSegments(satchel.db).some(({ id }) => id === frozen.id)).toBe(false)
})

test('segments compared split everybody, and a part becomes a segment', async () => {
  const ids = ['Reading lately', 'Best customers', 'Keenest readers'].map(
    (name) => segment(name)!.id,
  )
  await page().goto(`${satchel.url}/people/segments/compare?of=${ids.join(',')}`)
  await seen(/are in none of these/)
  await visitor.expectAccessible()
  const parts = page().getByRole('button', { name: /make a segment/ })
  const label = (await parts.first().getAttribute('aria-label'))!
  await parts.first().focus()
  await page().keyboard.press('Enter')
  await page().waitForURL(/segments\/\d+$/)
  await until(
    'its count is that of the column',
    async () => (await total()) === Number(/^([\d,]+)/.exec(label)![1]!.replace(',', '')),
  )
})

test('the table sorts, many are chosen and tagged, and that is undone', async () => {
  await page().goto(`${satchel.url}/people`)
  await page()
    .getByRole('button', { name: /^Sort by Bought/ })
    .click()
  await page().waitForURL(/sort=spent/)
  const best = one(
    satchel.db,
    q
      .selectFrom('facts')
      .innerJoin('people', 'people.id', 'person_id')
      .select('address')
      .orderBy('spent', 'desc')
      .orderBy('person_id', 'desc')
      .limit(1),
  )!
  await seen(best.address)
  const boxes = page().getByRole('checkbox', { name: /^Choose (?!everybody)/ })
  await boxes.nth(0).click()
  await boxes.nth(2).click({ modifiers: ['Shift'] })
  await seen('3 people chosen')
  await page().getByLabel('Tag', { exact: true }).fill('best of all')
  await page().getByRole('button', { name: 'Tag', exact: true }).click()
  await seen('3 people tagged best of all.')
  const tagged = () =>
    all(
      satchel.db,
      q
        .selectFrom('person_tags')
        .innerJoin('tags', 'tags.id', 'tag_id')
        .select('person_id')
        .where('name', '=', 'best of all'),
    ).length
  expect(tagged()).toBe(3)
  // At once: the notice with it does not stay long.
  await page().getByRole('button', { name: 'Undo' }).click()
  await until('the tags are gone', () => tagged() === 0)
  await visitor.expectAccessible()
  const everyone = countPeople(satchel.db)
  await page()
    .getByRole('button', { name: `Choose all ${everyone}` })
    .click()
  await seen(`${everyone} people chosen`)
  await page().getByRole('button', { name: 'Tag', exact: true }).click()
  await seen(`${everyone} people tagged best of all.`)
  expect(tagged()).toBe(everyone)
  await page().getByRole('button', { name: 'Undo' }).last().click()
  await until('all are without it', () => tagged() === 0)
  await page().getByRole('checkbox', { name: 'Choose everybody in this table' }).uncheck()
  expect(await page().getByText('people chosen').count()).toBe(0)
})

test('who goes elsewhere while they still type a search is not called back', async () => {
  await page().goto(`${satchel.url}/people`)
  await page().getByRole('link', { name: 'Fields, tags, lists' }).waitFor()
  await page().evaluate(() => {
    const search = document.querySelector<HTMLInputElement>('input[type=search]')!
    search.value = 'tove'
    search.dispatchEvent(new Event('input', { bubbles: true }))
    ;[...document.querySelectorAll('a')]
      .find((one) => one.textContent.trim() === 'Results')!
      .click()
  })
  await page().waitForURL(/\/results/)
  // Longer than a search waits for the next letter.
  await page().waitForTimeout(600)
  expect(page().url()).toMatch(/\/results/)
})

test('a person is changed where they stand, with undo; a note is kept; all that is known is given out', async () => {
  const person = one(
    satchel.db,
    q
      .selectFrom('facts')
      .innerJoin('people', 'people.id', 'person_id')
      .select(['people.id', 'people.fields'])
      .where('orders', '>', 0)
      .where('opened', '>', 0)
      .limit(1),
  )!
  await page().goto(`${satchel.url}/people/${person.id}`)
  await seen('Everything, in time')
  await seen('When they read')
  await visitor.expectAccessible()
  await write('First kite', 'Box kite')
  await seen('First kite is changed.')
  const fields = () =>
    one(satchel.db, q.selectFrom('people').select('fields').where('id', '=', person.id))!.fields
  expect(JSON.parse(fields()).first_kite).toBe('Box kite')
  await page().getByRole('button', { name: 'Undo' }).click()
  await until(
    'it is back',
    () =>
      (JSON.parse(fields()).first_kite ?? null) === (JSON.parse(person.fields).first_kite ?? null),
  )
  await page().getByLabel('Write a note').fill('Met at the festival.')
  await page().getByRole('button', { name: 'Add', exact: true }).click()
  await seen('Met at the festival.')
  const [download] = await Promise.all([
    page().waitForEvent('download'),
    page().getByRole('link', { name: 'Export all that is known' }).click(),
  ])
  expect(download.suggestedFilename()).toBe('person.json')
})

test('a task is written on a person’s page, stands on Today and under Tasks, is ticked, brought back and deleted', async () => {
  const { id } = one(
    satchel.db,
    q.selectFrom('facts').select('person_id as id').where('orders', '>', 0).limit(1),
  )!
  const text = `Ring about the reel, ${Date.now()}`
  await page().goto(`${satchel.url}/people/${id}`)
  const here = page().getByRole('region', { name: 'Tasks' })
  await here.getByLabel('What is to be done').fill(text)
  await here.getByLabel('Until when').fill('2026-11-10')
  await here.getByLabel('Who does it').selectOption('tove@galewright.example')
  await here.getByRole('button', { name: 'Add task' }).click()
  const line = () => here.getByRole('listitem').filter({ hasText: text })
  await line().getByText('2 days late').waitFor()
  await line().getByText('for tove@galewright.example').waitFor()
  await visitor.expectAccessible()

  await page().goto(satchel.url)
  await line().getByText('2 days late').waitFor()
  await visitor.expectAccessible()
  await here.getByRole('link', { name: /by today, \d+ in all/ }).click()
  await page().waitForURL(/\/tasks$/)
  await line().getByRole('checkbox').check()
  await line().waitFor({ state: 'detached' })
  const ofTask = () => tasksOf(satchel.db, id).find((task) => task.text === text)
  expect(ofTask()!.done).toMatchObject({ by: 'Wren Galewright' })
  await page().getByRole('button', { name: 'Undo' }).click()
  await line().waitFor()
  expect(ofTask()!.done).toBeNull()
  await line().getByRole('checkbox').check()
  await line().waitFor({ state: 'detached' })
  await page().getByRole('button', { name: 'Done', exact: true }).click()
  await page().waitForURL(/view=done/)
  await line()
    .getByText(/done .* by Wren Galewright/)
    .waitFor()
  await visitor.expectAccessible()
  // It is for Tove, so it is none of Wren's.
  await page().getByLabel('Whose').selectOption('me')
  await page().waitForURL(/for=me/)
  await line().waitFor({ state: 'detached' })
  await page().getByLabel('Whose').selectOption('all')
  await line().getByRole('checkbox').uncheck()
  await line().waitFor({ state: 'detached' })
  await page().getByRole('button', { name: 'To do', exact: true }).click()
  await line()
    .getByRole('button', { name: /^Delete/ })
    .click()
  await line().waitFor({ state: 'detached' })
  expect(ofTask()).toBeUndefined()
  const notices = page().locator('[aria-live]')
  await notices.getByText('The task is deleted.').waitFor()
})

test('somebody is added by hand only with a reason, and erased only with their address', async () => {
  await page().goto(`${satchel.url}/people/add`)
  await page().getByLabel('Address', { exact: true }).fill('by.hand@inkpost.example')
  await page().getByLabel('Wind notes').check()
  await page().getByRole('button', { name: 'Add', exact: true }).click()
  await seen('Say why this person may be mailed')
  await visitor.expectAccessible()
  await page().getByLabel('Why they may be mailed').fill('Asked by letter.')
  await page().getByRole('button', { name: 'Add', exact: true }).click()
  await page().waitForURL(/people\/\d+$/)
  await seen('subscribed on Wind notes by hand · “Asked by letter.”')
  await page().getByRole('button', { name: 'Erase' }).click()
  await page()
    .getByLabel(/^Write by.hand@inkpost.example/)
    .fill('other@inkpost.example')
  await page().getByRole('button', { name: 'Erase for good' }).click()
  await seen('This is not their address. Nothing was erased.')
  await page()
    .getByLabel(/^Write by.hand@inkpost.example/)
    .fill('by.hand@inkpost.example')
  await page().getByRole('button', { name: 'Erase for good' }).click()
  await page().waitForURL(/people$/)
  expect(
    one(
      satchel.db,
      q.selectFrom('people').select('id').where('normal', '=', 'by.hand@inkpost.example'),
    ),
  ).toBeUndefined()
})

test('the browser’s console said no error but those that were provoked', () => {
  const provoked = /status of (409|412|422)/
  expect(visitor.errors.filter((error) => !provoked.test(error))).toEqual([])
})
