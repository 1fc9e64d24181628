import { sql } from 'kysely'
import sharp from 'sharp'
import { expect, test } from 'vitest'
import { DAY } from '../core/time'
import { one, q, run } from '../database'
import { updateAccount } from '../database/account'
import { mailingById, recountTotals, totalsOf } from '../database/mailings'
import { demoInBrowser } from './demo-in-browser'
import { until } from './installation'

/** The way of a new user from a file of people to what came of a letter, in a real browser on a world that runs. */
const { satchel, visitor, page, seen } = demoInBrowser(1_200)
const mailingId = () => Number(/\/mail\/(\d+)/.exec(page().url())![1])
/** While the practice clock still jumps, whatever is sent next is through in no time. */
const arrived = () =>
  page()
    .getByRole('button', { name: /Jumping/ })
    .waitFor({ state: 'hidden', timeout: 400_000 })

test('Today opens, signed in, with the run sheet and what waits', async () => {
  await page().goto(satchel.enterUrl)
  await seen('Waiting for you')
  await seen('“Gale season sale” is blocked by its proof')
  await page()
    .getByRole('link', { name: /Wind notes 47/ })
    .waitFor()
  await page()
    .getByRole('link', { name: /Wind notes 46/ })
    .waitFor()
  await visitor.expectAccessible()
})

test('1. People come in from a file: columns are understood, one is changed, the report has each refused row', async () => {
  await page().getByRole('link', { name: 'People', exact: true }).click()
  await page().getByRole('link', { name: 'Import people' }).first().click()
  await page().setInputFiles('input[type=file]', 'demo/files/club-sheet.csv')
  await seen('How the columns were understood')
  expect(await page().getByLabel('Surname becomes').inputValue()).toBe('field:last_name')
  expect(await page().getByLabel('Wind notes? becomes').inputValue()).toBe('list:1')
  expect(await page().getByLabel('Flies becomes').inputValue()).toBe('new:choices')
  await page().getByLabel('Remarks becomes').selectOption('skip')
  await page().getByLabel('Flies becomes').selectOption('field:flying_style')
  await visitor.expectAccessible()
  // A column puts people on a list, so somebody has to say how they agreed.
  const counting = page().getByRole('button', { name: 'Count 1,224 rows first' })
  expect(await counting.isDisabled()).toBe(true)
  await page().getByLabel('How they agreed to it').fill('Ticked on the sheet of the club.')
  await page().getByLabel('They asked for what this puts them on').check()
  await counting.click()
  await seen('What would become of 1,224 rows')
  expect(
    one(
      satchel.db,
      q.selectFrom('people').select('id').where('normal', '=', 'rafe2@veilpost.example'),
    ),
  ).toBeUndefined()
  await page().getByRole('button', { name: 'Import: write 1,204 people' }).click()
  await seen('What became of 1,224 rows')
  await page().getByText('Done', { exact: true }).waitFor()
  await seen('This is not an address: it has more than one @.')
  const row = (name: string) =>
    page()
      .locator('tr', { has: page().getByRole('cell', { name, exact: true }) })
      .first()
  expect(await row('new').innerText()).toContain('1,204')
  expect(await row('refused').innerText()).toContain('5')
  await visitor.expectAccessible()
  const person = one(
    satchel.db,
    q.selectFrom('people').select('fields').where('normal', '=', 'rafe2@veilpost.example'),
  )!
  expect(JSON.parse(person.fields)).toMatchObject({
    flying_style: ['single-line'],
    town: 'Merewick',
  })
  expect(JSON.parse(person.fields)).not.toHaveProperty('remarks')
})

test('the table finds a person by part of a name, and opens them', async () => {
  await page().goto(`${satchel.url}/people`)
  await page().getByLabel('Find a name or address').fill('rafe2@')
  await seen('rafe2@veilpost.example')
  await visitor.expectAccessible()
  await page()
    .getByRole('link', { name: /rafe2@/ })
    .first()
    .click()
  await seen('Everything, in time')
  await seen('on file since')
  await visitor.expectAccessible()
})

test('2. A letter is written in place: subject, heading, text, fill-in, picture, button; and undone', async () => {
  await page().getByRole('link', { name: 'Mail', exact: true }).click()
  await page().getByRole('button', { name: 'Write a letter' }).first().click()
  await page()
    .getByRole('button', { name: /The usual start/ })
    .click()
  await page().waitForURL(/\/mail\/\d+\/letter/)
  const block = (kind: string) => page().locator(`[data-kind=${kind}]`)
  await block('heading').locator('.paper-text').click()
  await page().keyboard.press('Control+a')
  await page().keyboard.type('Kites over the harbour')
  const text = block('text').first().locator('.paper-text')
  await text.click()
  await page().keyboard.press('Control+End')
  await page().keyboard.press('Shift+Home')
  await page().keyboard.type('Come and fly with us, ')
  await page().getByRole('button', { name: 'Fill-in', exact: true }).click()
  await page().getByLabel('Value').selectOption('person.town')
  await page().getByLabel('If empty').fill('')
  await page().getByRole('button', { name: 'Insert the fill-in' }).click()
  await text.getByText('town', { exact: true }).waitFor()
  await text.click()
  await page().keyboard.press('Control+End')
  await page().keyboard.press('Enter')
  await page().keyboard.type('Bring string.')
  // A picture, inserted by "/" in an empty text under the first.
  const inserts = page().getByRole('button', { name: 'Insert a block here' })
  await inserts.nth(2).focus()
  await page().keyboard.press('Enter')
  await page().keyboard.type('text')
  await page().keyboard.press('Enter')
  await block('text').nth(1).locator('.paper-text').click()
  await page().keyboard.press('/')
  await page().keyboard.type('pict')
  await page().keyboard.press('Enter')
  const kite = await sharp({
    create: { width: 60, height: 30, channels: 3, background: '#b4573c' },
  })
    .png()
    .toBuffer()
  await block('picture')
    .locator('input[type=file]')
    .setInputFiles({ name: 'kite.png', mimeType: 'image/png', buffer: kite })
  await block('picture').locator('img').waitFor()
  await page().getByLabel('Alternative text').fill('A kite')
  // What is chosen stands in the place of the empty text.
  expect(await block('text').count()).toBe(1)
  await inserts.nth(2).focus()
  await page().keyboard.press('Enter')
  await page().keyboard.type('text')
  await page().keyboard.press('Enter')
  await block('text').nth(1).locator('.paper-text').click()
  await page().getByRole('button', { name: 'Delete' }).click()
  expect(await block('text').count()).toBe(1)
  await page().getByRole('button', { name: 'Undo' }).click()
  expect(await block('text').count()).toBe(2)
  await page().getByRole('button', { name: 'Redo' }).click()
  expect(await block('text').count()).toBe(1)
  await page().getByLabel('Words on the button').fill('See the place')
  await page().getByLabel('Preview text').fill('Saturday at ten')
  await page().getByText('Saved', { exact: true }).waitFor()
  await visitor.expectAccessible()
  const stored = one(
    satchel.db,
    q
      .selectFrom('letters')
      .innerJoin('mailings', 'mailings.letter_id', 'letters.id')
      .select(['document', 'preview_text'])
      .where('mailings.id', '=', mailingId()),
  )!
  expect(stored.preview_text).toBe('Saturday at ten')
  expect(stored.document).toContain('Kites over the harbour')
  expect(stored.document).toContain('"expression":"person.town"')
  expect(stored.document).toMatch(/"src":"\/p\/[0-9a-f]{32}"/)
})

test('3. The proof computes its six marks, and each goes when it is mended', async () => {
  const id = mailingId()
  const marks = () =>
    page().locator('section', { has: page().getByRole('heading', { name: 'Proof' }) })
  await marks().getByText('The subject is empty').waitFor()
  await marks().getByText('Link leads nowhere').waitFor()
  // Whoever has no town would read a gap: exactly as many as the database counts, but for those who asked for less mail
  // and had their letter of the week.
  const gap = await marks()
    .getByText(/people would read/)
    .innerText()
  const empty = one(
    satchel.db,
    q
      .selectFrom('people')
      .innerJoin('subscriptions', 'subscriptions.person_id', 'people.id')
      .leftJoin('set_aside', 'set_aside.person_id', 'people.id')
      .select((eb) => eb.fn.countAll<number>().as('n'))
      .where('list_id', '=', 1)
      .where('state', '=', 'subscribed')
      .where('set_aside.person_id', 'is', null)
      .where('fields', 'not like', '%"town"%')
      .where(({ not, exists, selectFrom, ref }) =>
        not(
          exists(
            selectFrom('own_limits as l')
              .innerJoin('recipients as r', 'r.person_id', 'l.person_id')
              .select('l.person_id')
              .whereRef('l.person_id', '=', ref('people.id'))
              .where(sql<boolean>`r.accepted_at > ${Date.now()} - l.one_in_days * ${DAY}`),
          ),
        ),
      ),
  )!.n
  expect(gap).toMatch(new RegExp(`^${empty.toLocaleString('en-GB')} of `))
  await page().getByLabel('Subject').fill('Lorem ipsum')
  await marks().getByText('Filler text left in the subject').waitFor()
  await page().getByLabel('Subject').fill('A place to fly on Saturday')
  await page().getByText('Button: See the place').click()
  await page().getByLabel('Leads to').fill('https://galewright.example/gale-week')
  await page().getByLabel('Leads to').press('Tab')
  await marks().getByText('Link answers 404').waitFor()
  await page().getByLabel('Leads to').fill('https://galewright.example/workshop')
  await page().getByLabel('Leads to').press('Tab')
  await marks().getByText('Link answers 404').waitFor({ state: 'detached' })
  updateAccount(satchel.db, { postal_address: '' })
  await marks().getByText('No postal address in the footer').waitFor()
  updateAccount(satchel.db, { postal_address: '1 Slipway, Sandreach' })
  // The chip is taken out and put in again with a fallback.
  const text = page().locator('[data-kind=text] .paper-text').first()
  await text.locator('.fill-in', { hasText: 'town' }).click()
  await page().keyboard.press('Delete')
  await page().getByRole('button', { name: 'Fill-in', exact: true }).click()
  await page().getByLabel('Value').selectOption('person.town')
  await page().getByLabel('If empty').fill('the coast')
  await page().getByRole('button', { name: 'Insert the fill-in' }).click()
  await marks()
    .getByText(/people would read/)
    .waitFor({ state: 'detached' })
  // What is left is no fault of the letter's: the same people get the weekly one tomorrow.
  await marks()
    .getByText(/get “Wind notes 47” within 48 hours, too/)
    .waitFor()
  expect(await marks().getByText('blocker').count()).toBe(0)
  await page().goto(`${satchel.url}/mail/${id}/audience`)
  await page().getByLabel('List', { exact: true }).selectOption('')
  await page().getByRole('link', { name: /Proof/ }).click()
  await seen('No audience')
  await visitor.expectAccessible()
  await page().getByRole('link', { name: 'Choose' }).click()
})

test('4. Dispatch says exactly how many, and goes out at its time when the clock jumps past it', async () => {
  await page()
    .getByLabel('List', { exact: true })
    .selectOption({
      label: await page()
        .getByLabel('List', { exact: true })
        .locator('option', { hasText: 'Wind notes' })
        .innerText(),
    })
  await page()
    .getByRole('radio', { name: /who joined in the last/ })
    .check()
  await page().getByLabel('Days').fill('2')
  await page().getByLabel('Days').press('Tab')
  const joined = () =>
    one(
      satchel.db,
      q
        .selectFrom('people')
        .innerJoin('subscriptions', 'subscriptions.person_id', 'people.id')
        .leftJoin('set_aside', 'set_aside.person_id', 'people.id')
        .select((eb) => eb.fn.countAll<number>().as('n'))
        .where('list_id', '=', 1)
        .where('state', '=', 'subscribed')
        .where('set_aside.person_id', 'is', null)
        .where('joined_at', '>', Date.now() - 2 * 86_400_000),
    )!.n
  const count = joined().toLocaleString('en-GB')
  await seen(count)
  await visitor.expectAccessible()
  await page()
    .getByRole('link', { name: /Dispatch/ })
    .click()
  await page().getByRole('radio', { name: 'At a time' }).check()
  await page()
    .getByRole('button', { name: `Schedule for ${count} people` })
    .waitFor()
  await visitor.expectAccessible()
  await page()
    .getByRole('button', { name: `Schedule for ${count} people` })
    .click()
  await seen('Make it a draft again')
  const id = mailingId()
  const at = mailingById(satchel.db, id)!.scheduled_at!
  expect(at).toBeGreaterThan(Date.now() + 20 * 3_600_000)
  await page()
    .getByRole('button', { name: /Practice clock/ })
    .click()
  await page().getByRole('button', { name: '1 day' }).click()
  await page()
    .getByRole('button', { name: /Jumping/ })
    .waitFor()
  await until('it goes out at its time', () => mailingById(satchel.db, id)!.started_at !== null)
  expect(mailingById(satchel.db, id)!.started_at! - at).toBeLessThan(3 * 60_000)
  await seen('handed over')
  await arrived()
})

test('5. It is paused, resumed, and comes to an end', async () => {
  updateAccount(satchel.db, { pace_per_minute: 240 })
  // To everybody at once, so that there are enough to pause in the middle of.
  run(
    satchel.db,
    q.updateTable('mailings').set({ plan: '{}' }).where('name', '=', 'Winter workshop'),
  )
  await page().getByRole('link', { name: 'Mail', exact: true }).click()
  await page()
    .getByRole('link', { name: /Winter workshop/ })
    .click()
  await page().getByRole('link', { name: 'Open the letter' }).click()
  await page()
    .getByRole('link', { name: /Dispatch/ })
    .click()
  await page().getByRole('radio', { name: 'Now', exact: true }).check()
  await page()
    .getByRole('button', { name: /^Send to/ })
    .click()
  await seen(/^[\d,]+ a minute, .* left\.$/)
  await page().getByRole('button', { name: 'Pause' }).click()
  await page().getByRole('status').getByText('paused').waitFor()
  const id = mailingId()
  await until('conversations are over', () => totalsOf(satchel.db, id)!.claimed === 0)
  const paused = totalsOf(satchel.db, id)!.accepted
  await visitor.expectAccessible()
  await page().getByRole('button', { name: 'Resume' }).click()
  await until('it goes on', () => totalsOf(satchel.db, id)!.accepted > paused)
})

test('6. Readers read: results come in by themselves, and their sums are those of the rows', async () => {
  const id = one(
    satchel.db,
    q.selectFrom('mailings').select('id').where('name', '=', 'A new letter'),
  )!.id
  await page().goto(`${satchel.url}/results/${id}`)
  await seen('Who went how far')
  await page()
    .getByRole('button', { name: /Practice clock|Jumping/ })
    .click()
  await page().getByRole('button', { name: '6 hours' }).click()
  await until('people have opened and clicked', () => (totalsOf(satchel.db, id)?.clicked ?? 0) > 2)
  await until('the shop tells of those who came to it', () => visitsSince(id) > 0)
  await arrived()
  await page()
    .getByRole('img', { name: /Recipients [\d,]+, Delivered/ })
    .waitFor()
  const opened = () => totalsOf(satchel.db, id)!.opened.toLocaleString('en-GB')
  await until('the page shows what the database counts', async () =>
    (await page()
      .getByRole('img', { name: /Recipients/ })
      .getAttribute('aria-label'))!.includes(`Opened ${opened()}`),
  )
  await visitor.expectAccessible()
  const { mailing_id: _, ...totals } = totalsOf(satchel.db, id)!
  expect(totals).toMatchObject(recountTotals(satchel.db, id))
  expect(totals.opened).toBeGreaterThan(totals.clicked)
  expect(totals.machine_opened).toBeGreaterThan(0)
})

test('7. Today has what went out', async () => {
  await page().getByRole('link', { name: 'Today', exact: true }).click()
  await page()
    .getByRole('link', { name: /A new letter/ })
    .waitFor()
  await visitor.expectAccessible()
})

test('keys: the palette finds a mailing and a person, g and a letter go to an area, ? lists the keys', async () => {
  await page().keyboard.press('Control+k')
  await page().getByRole('combobox').fill('Gale season')
  await page()
    .getByRole('option', { name: /Gale season sale/ })
    .waitFor()
  await visitor.expectAccessible()
  await page().keyboard.press('Enter')
  await page().waitForURL(/\/mail\/\d+\/letter/)
  await goBy('r', '/results')
  await page().keyboard.press('?')
  await page().getByRole('dialog').getByText('Find or do anything').waitFor()
  await page().keyboard.press('Escape')
  for (const [key, path] of [
    ['p', '/people'],
    ['m', '/mail'],
    ['d', '/standing'],
    ['s', '/sign-ups'],
    ['q', '/sequences'],
    ['t', '/'],
  ]) {
    await goBy(key!, path!)
    await visitor.expectAccessible()
  }
})

/** Goes to an area by its keys: once more where a slow machine let too long pass between the two. */
async function goBy(key: string, path: string) {
  await until(`g ${key} leads to ${path}`, async () => {
    await page().keyboard.press('g')
    await page().keyboard.press(key)
    const there = page().waitForURL((url) => url.pathname === path, { timeout: 10_000 })
    return there.then(
      () => true,
      () => false,
    )
  })
}

test('the browser’s console said no error in all of this', () => {
  expect(visitor.errors).toEqual([])
})

/** Page views that the shop told of since a mailing began to go out. */
function visitsSince(mailing: number): number {
  const views = q
    .selectFrom('events')
    .select((eb) => eb.fn.countAll<number>().as('n'))
    .where('name', '=', 'page view')
    .where('at', '>=', mailingById(satchel.db, mailing)!.started_at!)
  return one(satchel.db, views)!.n
}
