import { expect, test } from 'vitest'
import { DAY } from '../core/time'
import { all, one, q } from '../database'
import { readClock } from '../database/account'
import { somebody } from '../database/made-up'
import { mailingById } from '../database/mailings'
import { readSequences, sequenceById } from '../database/sequences'
import { demoInBrowser } from './demo-in-browser'
import { until } from './installation'
import { finishedLetter } from './subscribers'

const { satchel, visitor, page, seen } = demoInBrowser(400)
const button = (name: string | RegExp) => page().getByRole('button', { name, exact: true })
let id = 0
const sequence = () => sequenceById(satchel.db, id)!
const mailings = () =>
  Object.values(sequence().map.steps).flatMap((step) =>
    step.kind === 'mail' ? [step.mailingId] : [],
  )
const accepted = (mailing: number, person: number) =>
  one(
    satchel.db,
    q
      .selectFrom('recipients')
      .select('accepted_at')
      .where('mailing_id', '=', mailing)
      .where('person_id', '=', person),
  )?.accepted_at ?? null

test('the demo’s sequences are listed, each with its state and who is inside', async () => {
  await page().keyboard.press('g')
  await page().keyboard.press('q')
  await page().waitForURL(/sequences\/\d+$/)
  const list = page().getByRole('navigation', { name: 'Sequences' })
  for (const { name } of readSequences(satchel.db))
    await list.getByText(name, { exact: true }).waitFor()
  // The keys are those of the sequence that is open.
  await page().getByLabel('Name of the sequence').waitFor()
  await page().keyboard.press('j')
  await seen('Start: joins Wind notes')
  await visitor.expectAccessible()
})

test('one is drawn step by step; what it lacks is said, and every step can be undone', async () => {
  await page().getByRole('button', { name: 'New sequence' }).click()
  await until('it is made', () => readSequences(satchel.db).length === 5)
  id = readSequences(satchel.db).find(({ name }) => name === 'Sequence 5')!.id
  await page().waitForURL(new RegExp(`/sequences/${id}$`))
  const name = page().getByLabel('Name of the sequence')
  await until('it is open', async () => (await name.inputValue()) === 'Sequence 5')
  await page().getByLabel('Name of the sequence').fill('Hello, flyer')
  await page().getByLabel('Name of the sequence').press('Enter')
  await until('it is called so', () => sequence().name === 'Hello, flyer')
  await seen('There is no mail in it yet.')
  await page().getByLabel('On behalf of the list').selectOption({ label: 'Workshop news' })
  await button('Mail after Start: joins Workshop news').click()
  await seen(/Mail: Hello, flyer, mail 1/)
  await button(/^Wait after Mail:/).click()
  await seen('The last wait has nothing behind it.')
  await page().getByLabel('How long').fill('3')
  await page().getByLabel('How long').press('Tab')
  await seen('Wait 3 days')
  await button('Mail after Wait 3 days').click()
  await until('there are three steps', () => Object.keys(sequence().map.steps).length === 3)
  await button('Remove this step').click()
  await until('it is gone', () => Object.keys(sequence().map.steps).length === 2)
  await button('Undo').first().click()
  await until('it is back', () => mailings().length === 2)
  expect(mailingById(satchel.db, mailings()[1]!)).toBeDefined()
  expect(await button('Start').isDisabled()).toBe(true)
  await visitor.expectAccessible()
})

test('its letters are written as any other, and have no audience and no dispatch of their own', async () => {
  for (const mailing of mailings()) {
    const path = `${satchel.url}/api/mailings/${mailing}`
    const { letter } = (await (await page().request.get(path)).json()) as {
      letter: { version: number }
    }
    const { subject, previewText, document } = finishedLetter()
    const saved = await page().request.put(`${path}/letter`, {
      data: { subject, previewText, document, version: letter.version },
    })
    expect(saved.status()).toBe(200)
    const sent = await page().request.post(`${path}/dispatch`, { data: { at: null } })
    expect(sent.status()).toBe(409)
  }
  await page()
    .getByRole('button', { name: /^Mail: Force 5/ })
    .first()
    .click()
  await page().getByRole('link', { name: 'Write the letter' }).click()
  await page().waitForURL(/\/letter$/)
  await seen('of Hello, flyer')
  const stages = page().getByRole('navigation', { name: 'Stages' })
  expect(await stages.getByRole('link').allInnerTexts()).toEqual([
    expect.stringContaining('Letter'),
    expect.stringContaining('Proof'),
    expect.stringContaining('Results'),
  ])
  await page().getByRole('link', { name: 'of Hello, flyer' }).click()
  await page().waitForURL(/\/sequences\/\d+$/)
})

test('started, who joins gets the first mail at once, and the next when the clock has passed the wait', async () => {
  await until('its links are looked at', async () => {
    const got = await page().request.get(`${satchel.url}/api/sequences/${id}`)
    return ((await got.json()) as { problems: string[] }).problems.length === 0
  })
  await page().goto(`${satchel.url}/sequences/${id}`)
  await button('Start').click()
  await until('it runs', () => sequence().state === 'running')
  const person = somebody(satchel.db, 'newcomer@harbourmail.example', {
    list: sequence().list_id,
    now: Date.now(),
  })
  const [first, second] = mailings().sort((a, b) => a - b) as [number, number]
  await until('the first mail went', () => accepted(first, person) !== null)
  expect(accepted(second, person)).toBeNull()
  await seen('waits 3 days')
  const joinedAt = accepted(first, person)!
  await page().request.post(`${satchel.url}/api/clock`, {
    data: { jumpTo: joinedAt + 4 * DAY },
  })
  await until('the second went', () => accepted(second, person) !== null)
  const waited = accepted(second, person)! - joinedAt
  expect(waited).toBeGreaterThanOrEqual(3 * DAY - 60_000)
  expect(waited).toBeLessThan(3 * DAY + 3_600_000)
  await until('the clock is there', () => readClock(satchel.db)!.jumpTo === null)
  await page().goto(`${satchel.url}/people/${person}`)
  await seen('finished Hello, flyer')
  await seen('came into Hello, flyer')
  const text = `finished sequence "Hello, flyer" and opened any mailing of sequence "Hello, flyer" at most 5 times`
  const read = await page().request.post(`${satchel.url}/api/segments/read`, { data: { text } })
  expect(await read.json()).toMatchObject({ ok: true })
  await page().goto(`${satchel.url}/people/segments/new?text=${encodeURIComponent(text)}`)
  await seen('Finished sequence')
  await page()
    .getByRole('link', { name: /newcomer/ })
    .waitFor()
  await visitor.expectAccessible()
})

test('an import says which sequences could start, and starts them only where it is told to', async () => {
  const bring = async (address: string, start: boolean) => {
    await page().goto(`${satchel.url}/people/import`)
    await page()
      .locator('input[type=file]')
      .setInputFiles({
        name: `${address}.csv`,
        mimeType: 'text/csv',
        buffer: Buffer.from(
          `mail\n${address}@inkpost.example\nsecond.${address}@inkpost.example\n`,
        ),
      })
    await page().getByLabel('Everybody in this file').selectOption({ label: 'joins Workshop news' })
    await page().getByLabel('How they agreed to it').fill('They asked for it at the counter.')
    await page()
      .getByRole('checkbox', { name: /They asked for what this puts them on/ })
      .check()
    await page()
      .getByRole('button', { name: /^Count/ })
      .click()
    await seen('Sequences that could start')
    expect(await page().locator('tr', { hasText: 'Hello, flyer' }).innerText()).toContain('2')
    if (start) await page().getByRole('checkbox', { name: 'Let them start' }).check()
    await button(/^Import/).click()
    await seen('Undo this import')
  }
  const inside = () =>
    all(satchel.db, q.selectFrom('enrolments').select('person_id').where('sequence_id', '=', id))
      .length
  const before = inside()
  await bring('quiet', false)
  await bring('loud', true)
  await until('two came in', () => inside() === before + 2)
})

test('paused and ended, it says so; what is over can’t be thrown away', async () => {
  await page().goto(`${satchel.url}/sequences/${id}`)
  await button('Pause').click()
  await until('it rests', () => sequence().state === 'paused')
  await button('Go on').click()
  await until('it runs again', () => sequence().state === 'running')
  await button('End').click()
  await button('End it').click()
  await until('it is over', () => sequence().state === 'ended')
  await seen('Ended')
  const gone = await page().request.delete(`${satchel.url}/api/sequences/${id}`)
  expect(gone.status()).toBe(409)
  expect(visitor.errors.filter((error) => !error.includes('409'))).toEqual([])
})
