import { expect, test } from 'vitest'
import {
  mailingsOfMap,
  mailingsOfStep,
  ROUNDS_SHOWN,
  stepsInOrder,
  type MailStep,
} from '../core/sequences'
import { afterQuiet, DAY, dayOf, HOUR, hourOf, MINUTE, practiceTime } from '../core/time'
import { all, one, q, run } from '../database'
import { quietHours, readClock, updateAccount } from '../database/account'
import { closeMail } from '../database/calendar'
import { somebody } from '../database/made-up'
import { createMailing, mailingById, moveMailing } from '../database/mailings'
import { readerById, tasksOf, valuesOf } from '../database/people'
import {
  eachMailAhead,
  enrolPerson,
  mapOfVersion,
  readSequences,
  sequenceById,
  standingOf,
} from '../database/sequences'
import { demoInBrowser } from './demo-in-browser'
import { until } from './installation'
import { finishedLetter } from './subscribers'

const { satchel, visitor, page, seen, jumpTo } = demoInBrowser(400, { unread: true })
const button = (name: string | RegExp) => page().getByRole('button', { name, exact: true })
/** Puts a step of a kind in behind what a stop is called. */
async function add(where: string | RegExp, kind: string) {
  await page().getByRole('button', { name: where }).first().click()
  await page()
    .getByRole('menuitem', { name: new RegExp(`^${kind} `) })
    .first()
    .click()
}
const practice = () => practiceTime(readClock(satchel.db)!, Date.now())
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

test('who inside gets other mail within a day is said, with the mailing and by name', async () => {
  const { id: breeze } = readSequences(satchel.db).find(({ name }) => name === 'First breeze')!
  const { list_id } = sequenceById(satchel.db, breeze)!
  // Not somebody whose mail goes out while this is looked at.
  const from = practice() + 6 * HOUR
  const ahead: { person: number; at: number }[] = []
  eachMailAhead(satchel.db, practice(), practice() + 20 * DAY, (person, at, isHeld, sequence) => {
    if (sequence === breeze && !isHeld && at > from) ahead.push({ person, at })
  })
  // Of its own in each try.
  const name = `Close to it, ${practice()}`
  const letter = finishedLetter(name)
  const close = createMailing(satchel.db, { name, listId: list_id, letter }, 0)
  // Whom the frequency cap leaves out of it gets nothing besides.
  const { person } = ahead.find(({ person, at }) => {
    moveMailing(satchel.db, close, ['draft', 'scheduled'], 'scheduled', {
      scheduled_at: at + 3 * HOUR,
    })
    return closeMail(satchel.db, breeze, practice()).some.some(({ id }) => id === person)
  })!
  await page().goto(`${satchel.url}/sequences/${breeze}`)
  const marks = page().getByRole('region', { name: 'Marks' })
  await marks.getByText(/inside gets? other mail within a day of this/).waitFor()
  const link = marks.getByRole('link', { name, exact: true })
  expect(await link.getAttribute('href')).toBe(`/mail/${close}`)
  await marks.getByText('Who', { exact: true }).click()
  await marks.locator(`a[href="/people/${person}"]`).waitFor()
  await visitor.expectAccessible()

  // Where a frequency cap is set, its mail can be made to heed it.
  await marks.getByText('No frequency cap is set that would hold mail back:').waitFor()
  updateAccount(satchel.db, { cap_mailings: 100, cap_days: 7 })
  await page().reload()
  const mails = () =>
    Object.values(sequenceById(satchel.db, breeze)!.map.steps).filter(({ kind }) => kind === 'mail')
  await marks.getByRole('button', { name: 'Let its mail wait for room' }).click()
  await until('it waits', () => mails().every((step) => 'full' in step))
  await marks.getByText(/stands for how long it waits/).waitFor()
  await page().locator('[aria-live]').getByRole('button', { name: 'Undo' }).click()
  await until('it is as it was', () => mails().every((step) => !('full' in step)))
  updateAccount(satchel.db, { cap_mailings: null })

  // Beside another sequence, and while none is asked, the mark of this one does not stand.
  await page().route('**/close-mail', () => {})
  await page()
    .getByRole('link', { name: /^Basket left behind/ })
    .click()
  await page().waitForURL((url) => url.pathname !== `/sequences/${breeze}`)
  await until('another is open', async () => {
    const open = await page().getByLabel('Name of the sequence').inputValue()
    return open === 'Basket left behind'
  })
  expect(await marks.getByText(/within a day of this/).count()).toBe(0)
  await page().unroute('**/close-mail')
  moveMailing(satchel.db, close, ['scheduled'], 'draft')
  await page().goto(`${satchel.url}/sequences/${breeze}`)
  await page().reload()
  await page().getByLabel('Name of the sequence').waitFor()
  await until('it is said no more', async () => (await link.count()) === 0)
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
  await add('Add after Start: joins Workshop news', 'Mail')
  await seen(/Mail: Hello, flyer, mail 1/)
  await add(/^Add after Mail:/, 'Wait')
  await seen('A last wait has nothing behind it.')
  // A mark leads to its step, and mends what can be mended for one.
  const lacks = page().getByRole('region', { name: 'What it lacks' })
  await page()
    .getByRole('button', { name: /^Start: joins/ })
    .first()
    .click()
  await lacks.getByRole('button', { name: 'Wait 2 days' }).click()
  await page().getByRole('heading', { name: 'Wait', exact: true }).waitFor()
  await visitor.expectAccessible()
  await lacks.getByRole('button', { name: 'Remove it' }).click()
  await until('it is mended', () => Object.keys(sequence().map.steps).length === 1)
  await page().locator('[aria-live]').getByRole('button', { name: 'Undo' }).click()
  await until('it is back', () => Object.keys(sequence().map.steps).length === 2)
  await lacks.getByRole('button', { name: 'Wait 2 days' }).click()
  await page().getByLabel('How long').fill('3')
  await page().getByLabel('How long').press('Tab')
  await seen('Wait 3 days')
  await add('Add after Wait 3 days', 'Mail')
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
  await seen('at “Wait 3 days”')
  const joinedAt = accepted(first, person)!
  await jumpTo(joinedAt + 4 * DAY)
  await until('the second went', () => accepted(second, person) !== null)
  const waited = accepted(second, person)! - joinedAt
  expect(waited).toBeGreaterThanOrEqual(3 * DAY - 60_000)
  // While the clock jumped, and not behind it; how late within it hangs on the machine.
  expect(waited).toBeLessThan(4 * DAY)
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

test('a sequence forks by what somebody did since they came in, does things, and comes together again', async () => {
  const did = (person: number, name: string, at: number) =>
    run(satchel.db, q.insertInto('events').values({ person_id: person, name, at, props: '{}' }))
  const earlier = somebody(satchel.db, 'earlier@harbourmail.example', { now: practice() })
  did(earlier, 'asked for a map', practice())
  const before = id
  const many = readSequences(satchel.db).length
  await page().goto(`${satchel.url}/sequences`)
  await page().getByRole('button', { name: 'New sequence' }).click()
  await until('it is made', () => readSequences(satchel.db).length === many + 1)
  id = Math.max(...readSequences(satchel.db).map((one) => one.id))
  await page().waitForURL(new RegExp(`/sequences/${id}$`))
  await page().getByLabel('On behalf of the list').selectOption({ label: 'Workshop news' })
  await add('Add after Start: joins Workshop news', 'Mail')
  await add(/^Add after Mail:/, 'Wait')
  await add('Add after Wait 2 days', 'Fork')
  await page().getByLabel('Way 1: who').selectOption({ label: 'did an event' })
  await page().getByLabel('Which event').selectOption('asked for a map')
  await seen('Fork: did “asked for a map”?')
  await seen('All ways of a fork lead to the same step.')
  await visitor.expectAccessible()
  await add(/^Add after Fork:.*, yes$/, 'Do')
  await seen('A step that is to do something does nothing yet.')
  await page().getByLabel('Something to do').selectOption({ label: 'Give a tag' })
  await page().getByLabel('Tag', { exact: true }).fill('map reader')
  await page().getByLabel('Tag', { exact: true }).press('Enter')
  await seen('Do: tag “map reader”')
  await page().getByLabel('Something to do').selectOption({ label: 'Give the team a task' })
  await seen('The team gets a task, and it is not said which.')
  await page().getByLabel('What is to be done').fill('Send them the large map')
  await page().getByLabel('What is to be done').press('Enter')
  await page().getByLabel('Due after, days').fill('3')
  await page().getByLabel('Due after, days').press('Tab')
  await seen('Do: tag “map reader”, give the team a task')
  // Only to a number or to choices anything can be added.
  await page().getByLabel('Something to do').selectOption({ label: 'Add to a field' })
  await seen('Do: tag “map reader”, give the team a task, add 1 to a field')
  const fields = page().getByLabel('Field', { exact: true })
  expect(await fields.locator('option').allInnerTexts()).not.toContain('Town')
  await fields.selectOption({ label: 'Flying style' })
  await page().getByLabel('What is added').fill('indoor')
  await page().getByLabel('What is added').press('Enter')
  await seen('Do: tag “map reader”, give the team a task, add indoor to Flying style')
  await add(/^Add after Fork:.*, everyone else$/, 'Mail')
  await until('there are five steps', () => Object.keys(sequence().map.steps).length === 5)
  // The fork goes with its side way alone, and comes back whole.
  await page()
    .getByRole('button', { name: /^Fork: did/ })
    .first()
    .click()
  await page().keyboard.press('Delete')
  await until('it is gone', () => Object.keys(sequence().map.steps).length === 3)
  await button('Undo').first().click()
  await until('it is back', () => Object.keys(sequence().map.steps).length === 5)
  // It can be seen whole.
  await button('Smaller').click()
  await seen('80%')
  await button('Fit').click()
  const { width, right } = await page()
    .getByRole('group', { name: 'Steps' })
    .evaluate((map) => {
      const room = map.parentElement!
      return {
        width: room.scrollWidth - room.clientWidth,
        right: room.scrollHeight - room.clientHeight,
      }
    })
  expect(Math.max(width, right)).toBeLessThanOrEqual(1)
  await button('100%')
    .or(page().getByRole('button', { name: /as large as it is/ }))
    .first()
    .click()
  // A goal, and a split whose side way goes past what is on the other.
  await add(/^Add after Mail: .*, mail 2$/, 'Goal')
  await page().getByLabel('What it is called').fill('a first order')
  await page().getByLabel('What it is called').press('Enter')
  await seen('Goal: a first order')
  await page().getByLabel('within').fill('10')
  await page().getByLabel('within').press('Tab')
  await seen('Goal: a first order, within 10 days')
  await page().getByLabel('worth').fill('2.50')
  await page().getByLabel('worth').press('Tab')
  await page().getByLabel('Who reaches it').selectOption('way')
  await page().getByLabel('Who reached it: then on to').waitFor()
  await visitor.expectAccessible()
  const goal = () => Object.values(sequence().map.steps).find(({ kind }) => kind === 'goal')
  await until('it is kept', () => goal() !== undefined && 'ways' in goal()!)
  expect(goal()).toMatchObject({ within: 10, worth: 250, out: false, ways: [{ next: null }] })
  await page().getByLabel('Who reaches it').selectOption('out')
  await until('its way is gone', () => !('ways' in goal()!))
  await add('Add after Start: joins Workshop news', 'Split')
  await page().getByLabel('Share of B, percent').fill('20')
  await page().getByLabel('Share of B, percent').press('Tab')
  await seen('A 80%')
  await page().getByLabel('Way B: then on to').selectOption({ label: 'Finish' })
  const split = () => Object.values(sequence().map.steps).find(({ kind }) => kind === 'split')
  await until('it leads there', () =>
    JSON.stringify(split()).includes('"ways":[{"share":200,"next":null}]'),
  )
  await visitor.expectAccessible()
  await page()
    .getByRole('button', { name: /^Split by lot/ })
    .first()
    .click()
  await button('Remove it with its side ways').click()
  await until('it is gone', () => split() === undefined)
  for (const mailing of mailings()) {
    const path = `${satchel.url}/api/mailings/${mailing}`
    const { letter } = (await (await page().request.get(path)).json()) as {
      letter: { version: number }
    }
    const { subject, previewText, document } = finishedLetter()
    const data = { subject, previewText, document, version: letter.version }
    expect((await page().request.put(`${path}/letter`, { data })).status()).toBe(200)
  }
  await until('nothing keeps it', async () => {
    const got = await page().request.get(`${satchel.url}/api/sequences/${id}`)
    return ((await got.json()) as { problems: string[] }).problems.length === 0
  })
  await page().goto(`${satchel.url}/sequences/${id}`)
  await button('Start').click()
  await until('it runs', () => sequence().state === 'running')
  const list = sequence().list_id
  const [reader, other] = ['reader', 'other'].map((name) =>
    somebody(satchel.db, `${name}@harbourmail.example`, { list, now: practice() }),
  ) as [number, number]
  const [first, second] = mailings().sort((a, b) => a - b) as [number, number]
  await until(
    'both have the first',
    () => accepted(first, reader) !== null && accepted(first, other) !== null,
  )
  did(reader, 'asked for a map', practice() + 1_000)
  await jumpTo(practice() + 3 * DAY)
  await until('everyone else has the second', () => {
    if (accepted(second, other) !== null) return true
    const of = (table: 'enrolments' | 'recipients') =>
      all(satchel.db, q.selectFrom(table).selectAll().where('person_id', '=', other))
    const known = [of('enrolments'), of('recipients'), readClock(satchel.db)]
    throw new Error(JSON.stringify(known))
  })
  expect(accepted(second, reader)).toBeNull()
  await until('the clock is there', () => readClock(satchel.db)!.jumpTo === null)
  await page().goto(`${satchel.url}/people/${reader}`)
  await seen('map reader')
  const tasks = page().getByRole('region', { name: 'Tasks' })
  await tasks.getByText('Send them the large map').waitFor()
  expect(tasksOf(satchel.db, reader)).toMatchObject([{ by: sequence().name, for: null }])
  expect(valuesOf(readerById(satchel.db, reader)!).flying_style).toEqual(['indoor'])
  expect(tasksOf(satchel.db, other)).toEqual([])
  await page().goto(`${satchel.url}/sequences/${id}`)
  await seen('yes · 50.0%')
  await visitor.expectAccessible()
  await button('More').click()
  await page().getByRole('menuitem', { name: 'End…' }).click()
  await button('End it').click()
  await until('it is over', () => sequence().state === 'ended')
  id = before
})

test('a step is moved and copied, also into another sequence, with a note; and a sequence is duplicated', async () => {
  await page().goto(`${satchel.url}/sequences/${id}`)
  const newest = () => Math.max(...readSequences(satchel.db).map((one) => one.id))
  /** Presses what makes one more sequence; its id, once it is open. */
  async function made(press: () => Promise<void>) {
    const before = newest()
    await press()
    await until('it is made', () => newest() > before)
    await page().waitForURL(new RegExp(`/sequences/${newest()}$`))
    return newest()
  }
  const six = await made(() => button('New sequence').click())
  const map = () => sequenceById(satchel.db, six)!.map
  const kinds = () => stepsInOrder(map()).map(({ step }) => step.kind)
  await add(/^Add after Start/, 'Wait')
  await seen('Wait 2 days')
  await add('Add after Wait 2 days', 'Mail')
  await until('there are two', () => kinds().join() === 'wait,mail')
  await page().getByRole('textbox', { name: 'Note' }).fill('Ask Wren about the picture.')
  await page().getByRole('textbox', { name: 'Note' }).press('Enter')
  await until('it has a note', () =>
    Object.values(map().steps).some(({ note }) => note === 'Ask Wren about the picture.'),
  )
  // By hand, with the keys, and back.
  await button('Move').click()
  await add(/^Add after Start/, 'Put here:')
  await until('the mail is first', () => kinds().join() === 'mail,wait')
  await page().getByTitle('Wait 2 days', { exact: true }).click()
  await page().keyboard.press('Control+x')
  await seen('Wait 2 days moves: choose where, with +.')
  await page().keyboard.press('Escape')
  await page().keyboard.press('Control+x')
  await add(/^Add after Start/, 'Put here:')
  await until('the wait is first', () => kinds().join() === 'wait,mail')
  await button('Undo').first().click()
  await until('it is as before', () => kinds().join() === 'mail,wait')
  // Dragged, and back; with Ctrl a copy of it.
  const step = (name: RegExp) => page().getByRole('button', { name }).first()
  async function drag(name: RegExp, spot: string, copies = false) {
    const data = await page().evaluateHandle(() => new DataTransfer())
    await step(name).dispatchEvent('dragstart', { dataTransfer: data })
    const place = page().locator(`[data-spot^="${spot}"]`)
    await place.dispatchEvent('dragover', { dataTransfer: data })
    await place.dispatchEvent('drop', { dataTransfer: data, ctrlKey: copies })
  }
  await drag(/^Wait 2 days/, 'Start')
  await until('the wait is first again', () => kinds().join() === 'wait,mail')
  await button('Undo').first().click()
  await until('it is as before again', () => kinds().join() === 'mail,wait')
  await drag(/^Wait 2 days/, 'Start', true)
  await until('there are two waits', () => kinds().join() === 'wait,mail,wait')
  await button('Undo').first().click()
  await until('there is one again', () => kinds().join() === 'mail,wait')
  // A split with its side way, which has a letter of its own in the copy; put into itself, it stays.
  await add('Add after Wait 2 days', 'Split')
  await add(/^Add after Split by lot: 2 ways, B/, 'Mail')
  await until('it has a side way', () => kinds().join() === 'mail,wait,split,mail')
  await step(/^Split by lot/).click()
  await page().keyboard.press('Control+x')
  await add(/^Add after Split by lot: 2 ways, B/, 'Put here:')
  await seen('It can’t be put into itself. Choose another place, with +.')
  await page().keyboard.press('Escape')
  await page().keyboard.press('Control+c')
  await add(/^Add after Start/, 'Put here:')
  await until('it is there twice', () => kinds().join() === 'split,mail,mail,wait,split,mail')
  expect(new Set(mailingsOfMap(map())).size).toBe(3)
  await page().keyboard.press('Delete')
  await until('the copy is gone with its way', () => kinds().join() === 'mail,wait,split,mail')
  // Into another: with a letter of its own.
  const letterBefore = Object.values(map().steps).find(({ kind }) => kind === 'mail')
  await page()
    .getByRole('button', { name: /^Mail: / })
    .first()
    .click()
  await button('Copy').click()
  const seven = await made(() => button('New sequence').click())
  await visitor.expectAccessible()
  await add(/^Add after Start/, 'Put here:')
  const copied = () => Object.values(sequenceById(satchel.db, seven)!.map.steps)[0]
  await until('it is copied', () => copied()?.kind === 'mail')
  expect(copied()).toMatchObject({ note: 'Ask Wren about the picture.' })
  expect(copied()).not.toMatchObject({
    mailingId: (letterBefore as { mailingId: number }).mailingId,
  })

  const copy = await made(async () => {
    await button('More').click()
    await page().getByRole('menuitem', { name: 'Duplicate' }).click()
  })
  const [other] = Object.values(sequenceById(satchel.db, copy)!.map.steps)
  expect(other).toMatchObject({ kind: 'mail', note: 'Ask Wren about the picture.' })
  expect(other).not.toEqual(copied())
})

test('it is rehearsed with those who could come in, anew whenever it is changed, and by one person as one says', async () => {
  const { id: basket } = readSequences(satchel.db).find(
    ({ name }) => name === 'Basket left behind',
  )!
  await page().goto(`${satchel.url}/sequences/${basket}`)
  // An answer that comes late says nothing that is not known.
  let letGo = () => {}
  const held = new Promise<void>((go) => (letGo = go))
  await page().route('**/rehearsal', async (route) => {
    await held
    await route.continue()
  })
  await button('Rehearsal').click()
  await page().waitForURL(/view=rehearsal/)
  await seen('Drawing people…')
  expect(await page().getByText('2,000 came in').count()).toBe(0)
  letGo()
  await seen(/40 of 40 draws/)
  await page().unroute('**/rehearsal')
  const panel = page().getByRole('region', { name: 'Rehearsal' })
  const reached = await panel.getByRole('row', { name: /Reach the goal/ }).innerText()
  await visitor.expectAccessible()
  await panel.getByLabel('Each for').selectOption({ label: '14 days' })
  await seen('Still inside after 14 days')
  await seen(/40 of 40 draws/)
  await panel.getByText('Beside what came of it so far').click()
  await panel.getByText(/bought after all: reached/).waitFor()
  expect(reached).toMatch(/\d%/)

  await panel.getByRole('button', { name: 'One person' }).click()
  await panel.getByText('finished', { exact: true }).waitFor()
  await panel.getByRole('combobox', { name: /basket is still here/ }).selectOption('orders')
  await panel.getByText('out by the goal').waitFor()
  await panel.getByRole('combobox', { name: /basket is still here/ }).selectOption('clicks')
  await panel.getByRole('combobox', { name: 'Where they fall' }).selectOption({ label: 'B 50%' })
  await panel.getByRole('button', { name: 'Mail: Shall we choose it with you?' }).waitFor()
  await visitor.expectAccessible()
})

const basketId = () =>
  readSequences(satchel.db).find(({ name }) => name === 'Basket left behind')!.id

test('its results stand beside those held out; a split is decided and given back; one person’s way is told', async () => {
  const basket = basketId()
  await page().goto(`${satchel.url}/sequences/${basket}?view=results`)
  const goal = page().getByRole('region', { name: 'Goal and money' })
  await goal.getByText('Held out by lot').waitFor()
  await goal.getByText('Money that would not have come').waitFor()
  await goal.getByLabel('Within').selectOption({ label: '30 days' })
  await goal.getByText(/led through it/).waitFor()
  await visitor.expectAccessible()
  const split = page().getByRole('region', { name: 'Split by lot: 2 ways' })
  const shares = () =>
    standingOf(satchel.db, basket, 'split', sequenceById(satchel.db, basket)!.map)
  await split.getByRole('button', { name: 'All by B' }).click()
  await split.getByText(/Who comes now goes A 0%, B 100%/).waitFor()
  expect(shares()?.shares).toEqual([0, 1_000])
  await split.getByRole('button', { name: 'By lot again' }).click()
  await split.getByText(/Not clear yet|clearly better/).waitFor()
  expect(shares()?.shares).toBeNull()

  // Each figure leads to its people, and which has an address.
  const list = page().getByRole('region', { name: 'One by one' })
  const rows = list.getByRole('listitem')
  await page()
    .getByRole('link', { name: /^B 50% · \d/ })
    .click()
  await page().waitForURL(/of=came.*step=split.*way=1/)
  await list.getByText('Who went by “Split by lot: 2 ways”, B 50%, the latest first.').waitFor()
  const byB = all(
    satchel.db,
    q
      .selectFrom('sequence_trail')
      .select('person_id')
      .where('sequence_id', '=', basket)
      .where('step', '=', 'split')
      .where('way', '=', 1),
  ).length
  await until('they are there', async () => (await rows.count()) === Math.min(byB, ROUNDS_SHOWN))
  await visitor.expectAccessible()
  await page()
    .getByRole('link', { name: /^[\d,]+ out$/ })
    .click()
  await list.getByText('Who came to the end, the latest first.').waitFor()
  await rows.first().waitFor()
  await list.getByRole('button', { name: 'Close' }).click()
  await list.waitFor({ state: 'detached' })

  const inside = one(
    satchel.db,
    q
      .selectFrom('enrolments')
      .innerJoin('people', 'people.id', 'person_id')
      .select(['people.id', 'people.address'])
      .where('sequence_id', '=', basket)
      .where('state', '=', 'finished'),
  )!
  const way = page().getByRole('region', { name: 'One person’s way' })
  await way.getByRole('button', { name: 'Find…' }).click()
  await way.getByRole('combobox').fill(inside.address)
  await way.getByRole('option').first().click()
  await page().waitForURL(new RegExp(`person=${inside.id}`))
  await way
    .getByText(/finished|out by the goal/)
    .first()
    .waitFor()
  await way
    .getByText(/came in: leaves “basket” behind/)
    .first()
    .waitFor()
  await way
    .getByText(/sent “Your basket is still here”/)
    .first()
    .waitFor()
  await visitor.expectAccessible()
  const csv = await page().request.get(`${satchel.url}/api/sequences/${basket}/results.csv`)
  expect((await csv.text()).split('\r\n')[1]).toMatch(/^1,Mail,Your basket is still here,on,\d+,/)
  // How many reached its goal, and of it those led through and those held out.
  expect(await csv.text()).toMatch(/,Goal,,reached it,\d+,,,,,,14(,\d+){5}\r\n/)
})

test('its results are of some alone, on the map too; until those are known, nothing of others is shown', async () => {
  const basket = basketId()
  await page().goto(`${satchel.url}/sequences/${basket}?view=results`)
  const goal = page().getByRole('region', { name: 'Goal and money' })
  const map = page().getByRole('group', { name: 'Steps' })
  await goal.getByText(/led through it/).waitFor()
  await goal.getByRole('button', { name: 'Of everybody; narrow it…' }).click()
  await visitor.expectAccessible()
  let letGo = () => {}
  const held = new Promise<void>((done) => (letGo = done))
  await page().route(/results\?.*provider=/, async (route) => {
    await held
    await route.continue()
  })
  await goal.getByLabel('At', { exact: true }).selectOption('harbourmail.example')
  await page().waitForURL(/provider=harbourmail/)
  await map.waitFor({ state: 'hidden' })
  expect(await goal.getByText(/led through it/).count()).toBe(0)
  letGo()
  await map.waitFor()
  const here = one(
    satchel.db,
    q
      .selectFrom('enrolments as n')
      .innerJoin('people as p', 'p.id', 'n.person_id')
      .innerJoin('sequence_trail as t', (join) =>
        join
          .onRef('t.sequence_id', '=', 'n.sequence_id')
          .onRef('t.person_id', '=', 'n.person_id')
          .onRef('t.round', '=', 'n.round'),
      )
      .select((eb) => eb.fn.countAll<number>().as('n'))
      .where('n.sequence_id', '=', basket)
      .where('t.step', '=', 'split')
      .where('p.domain', '=', 'harbourmail.example'),
  )!.n
  await map.getByText(`${here} came by`).waitFor()
  const csv = await goal.getByRole('link', { name: 'CSV' }).getAttribute('href')
  const rows = (await (await page().request.get(`${satchel.url}${csv}`)).text()).split('\r\n')
  const ways = rows.filter((row) => row.split(',')[1] === 'Split')
  expect(ways.reduce((sum, row) => sum + Number(row.split(',')[4]), 0)).toBe(here)
  await page().reload()
  await map.getByText(`${here} came by`).waitFor()
  await visitor.expectAccessible()
  await page().unroute(/results\?.*provider=/)
  // Who is asked about in words, by a field of theirs; what can't be read is said, and nothing shown for it.
  await goal.getByLabel('Who', { exact: true }).fill('Town is')
  await goal.getByLabel('Who', { exact: true }).press('Enter')
  await goal.getByRole('alert').filter({ hasText: 'Who: ' }).waitFor()
  expect(await goal.getByText(/led through it/).count()).toBe(0)
  await goal.getByLabel('Who', { exact: true }).fill('Town is "Sandreach"')
  await goal.getByLabel('Who', { exact: true }).press('Enter')
  await page().waitForURL(/who=Town/)
  await goal.getByText(/led through it|Nobody came in/).waitFor()
  visitor.errors.splice(0)
  await goal.getByRole('button', { name: 'Of everybody again' }).click()
  await page().waitForURL((url) => !/provider|who/.test(url.search))
  await goal.getByText(/led through it/).waitFor()
  await map.getByText(`${here} came by`).waitFor({ state: 'hidden' })
})

test('one that runs is drawn on beside it, and published with people inside, who go on by it', async () => {
  const basket = () => sequenceById(satchel.db, basketId())!
  const version = basket().version
  const before = JSON.stringify(basket().map)
  async function setLength(days: string) {
    await page().getByLabel('How long').fill(days)
    await page().getByLabel('How long').press('Tab')
    await seen(/changed, not published/)
  }
  const inside = () =>
    all(
      satchel.db,
      q
        .selectFrom('enrolments')
        .select(['version', 'step'])
        .where('sequence_id', '=', basketId())
        .where('state', '=', 'inside'),
    )
  for (const name of ['basket.one', 'basket.two']) {
    const person = somebody(satchel.db, `${name}@harbourmail.example`, {
      list: basket().list_id!,
      now: practice(),
    })
    expect(enrolPerson(satchel.db, basketId(), person, practice())).toBe(true)
  }
  const wait = stepsInOrder(basket().map).find(({ step }) => step.kind === 'wait')!.id
  await until('they wait', () => inside().filter(({ step }) => step === wait).length >= 2)
  await page().goto(`${satchel.url}/sequences/${basketId()}`)
  await page()
    .getByRole('button', { name: /^Wait \d/ })
    .first()
    .click()
  await setLength('9')
  expect(basket().version).toBe(version)
  // Nothing is published before it was seen who is inside.
  let letGo = () => {}
  const late = new Promise<void>((go) => (letGo = go))
  await page().route(/\/moving$/, async (route) => {
    await late
    await route.continue()
  })
  await button('Publish').click()
  await seen('Asking who is inside…')
  const publish = page().getByRole('dialog').getByRole('button', { name: 'Publish' })
  expect(await publish.isDisabled()).toBe(true)
  letGo()
  await page()
    .getByRole('dialog')
    .getByText(/ inside$/)
    .waitFor()
  await visitor.expectAccessible()
  await page()
    .getByRole('radio', { name: /go on by this one/ })
    .check()
  await publish.click()
  await until('it is published', () => basket().version === version + 1)
  await until('all who could go on by it do', () =>
    inside().every((one) => one.version === version + 1 || !basket().map.steps[one.step]),
  )
  expect(JSON.stringify(basket().map)).not.toBe(before)
  // It is rehearsed beside the version before, with the same people; which, stands in the page's address.
  await page().goto(`${satchel.url}/sequences/${basketId()}?view=rehearsal`)
  const panel = page().getByRole('region', { name: 'Rehearsal' })
  await panel.getByText(/40 of 40 draws/).waitFor()
  await panel.getByText('Which is the map as it stands.').waitFor()
  expect(await panel.getByRole('columnheader', { name: /^version/ }).count()).toBe(0)
  await panel.getByLabel('Beside which version').selectOption(String(version))
  await page().waitForURL(new RegExp(`beside=${version}`))
  await panel.getByRole('columnheader', { name: `version ${version}`, exact: true }).waitFor()
  await panel.getByText(/40 of 40 draws/).waitFor()
  expect(await panel.getByText('Which is the map as it stands.').count()).toBe(0)
  await visitor.expectAccessible()
  await page().reload()
  await panel.getByRole('columnheader', { name: `version ${version}`, exact: true }).waitFor()
  await page().goto(`${satchel.url}/sequences/${basketId()}`)
  await page()
    .getByRole('button', { name: /^Wait \d/ })
    .first()
    .click()
  await page().getByRole('button', { name: 'Publish' }).waitFor({ state: 'detached' })
  // What is drawn can be given up.
  await setLength('8')
  await button('More').click()
  await page().getByRole('menuitem', { name: 'Discard changes' }).click()
  await page().getByRole('button', { name: 'Publish' }).waitFor({ state: 'detached' })
  expect(basket().version).toBe(version + 1)
})

test('a wait knows days off from a calendar file, and goes by the reader’s own clock and best hour', async () => {
  const draft = readSequences(satchel.db).find(({ name }) => name === 'Quiet since summer')!.id
  const waits = () =>
    Object.values(sequenceById(satchel.db, draft)!.map.steps).flatMap((step) =>
      step.kind === 'wait' ? [step] : [],
    )
  const before = JSON.stringify(waits())
  await page().goto(`${satchel.url}/sequences/${draft}`)
  await page()
    .getByRole('button', { name: /^Wait / })
    .first()
    .click()
  await page().getByLabel('then until certain days and hours').check()
  const file = page().getByLabel('Days off from a calendar file')
  const calendar = (text: string) => ({
    ...{ name: 'days-off.ics', mimeType: 'text/calendar' },
    buffer: Buffer.from(text),
  })
  await file.setInputFiles(calendar('Closed on Friday.'))
  await seen('This is no calendar file (iCalendar) that can be read.')
  const year = Number(dayOf(practice(), 'UTC').slice(0, 4)) + 1
  const event = ['BEGIN:VEVENT', `DTSTART;VALUE=DATE:${year}1224`, `DTEND;VALUE=DATE:${year}1227`]
  const lines = ['BEGIN:VCALENDAR', 'VERSION:2.0', ...event, 'END:VEVENT', 'END:VCALENDAR']
  await file.setInputFiles(calendar(lines.join('\r\n')))
  await seen(`3 days off, next 24 Dec ${year}`)
  await page().getByLabel('By whose clock').selectOption({ label: 'theirs, by “Time zone”' })
  await until('it is kept', () => waits().some(({ clock }) => clock === 'time_zone'))
  await page().getByLabel('then until the hour they read most').check()
  await seen(/at their best hour, then /)
  await until('that is, too', () => waits().some(({ best }) => best === true))
  expect(waits().find(({ hours }) => hours?.off)!.hours!.off).toEqual(
    [24, 25, 26].map((day) => `${year}-12-${day}`),
  )
  // Back to what stands before it, and on after so many times.
  const first = Object.keys(sequenceById(satchel.db, draft)!.map.steps)[0]!
  await page().getByLabel('After it').selectOption(first)
  await seen(/then back to “.+”, at most 3 times/)
  await page().getByLabel('At most, times').fill('99')
  await page().getByLabel('At most, times').press('Enter')
  await until('it is kept', () =>
    waits().some(({ back }) => back?.to === first && back.times === 52),
  )
  await visitor.expectAccessible()
  for (let n = 0; n < 6; n++) await button('Undo').click()
  await until('it is as it was', () => JSON.stringify(waits()) === before)
})

test('paused, it goes on at once or spread over a time; ended, it can’t be thrown away', async () => {
  await page().goto(`${satchel.url}/sequences/${id}`)
  const waits = somebody(satchel.db, 'wanda.waits@harbourmail.example', {
    ...{ list: sequence().list_id!, now: practice() },
  })
  const round = () =>
    one(
      satchel.db,
      q
        .selectFrom('enrolments')
        .select(['due', 'state'])
        .where('sequence_id', '=', id)
        .where('person_id', '=', waits),
    )
  await until('she is inside', () => round()?.state === 'inside')
  await button('Pause').click()
  await until('it rests', () => sequence().state === 'paused')
  run(
    satchel.db,
    q
      .updateTable('enrolments')
      .set({ due: practice() - HOUR })
      .where('sequence_id', '=', id)
      .where('person_id', '=', waits),
  )
  await button('Go on').click()
  const dialog = page().getByRole('dialog', { name: 'Let it go on?' })
  await dialog.getByText(/^\s*The next step of \d+ (person|people) came due/).waitFor()
  await dialog.getByLabel('They go on').selectOption({ label: 'over a day' })
  await visitor.expectAccessible()
  await dialog.getByRole('button', { name: 'Go on' }).click()
  await until('it runs again', () => sequence().state === 'running')
  const { resumed_at, spread } = sequence()
  expect(spread).toBe(DAY)
  await until('her turn is drawn', () => round()!.due > resumed_at)
  expect(round()!.due).toBeLessThanOrEqual(resumed_at + DAY)
  await button('More').click()
  await page().getByRole('menuitem', { name: 'End…' }).click()
  await button('End it').click()
  await until('it is over', () => sequence().state === 'ended')
  await seen('Ended')
  const gone = await page().request.delete(`${satchel.url}/api/sequences/${id}`)
  expect(gone.status()).toBe(409)
  expect(visitor.errors.filter((error) => !error.includes('409'))).toEqual([])
})

test('versions of a mail are tried in a running sequence: added, given shares, taken away, compared and decided', async () => {
  const breeze = readSequences(satchel.db).find(({ name }) => name === 'First breeze')!.id
  const mail = () => sequenceById(satchel.db, breeze)!.map.steps['mail-4']
  const before = mail()
  const name = 'Mail: Twelve beaches, and which wind each likes (2 versions)'
  await page().goto(`${satchel.url}/sequences/${breeze}`)
  await page().getByTitle(name, { exact: true }).click()
  const versions = page().getByRole('region', { name: 'Versions' })
  await versions.getByRole('link', { name: 'Which of these twelve beaches is yours?' }).waitFor()
  await versions.getByRole('button', { name: 'Another version' }).click()
  await versions.getByLabel('Share of C, percent').waitFor()
  await until('it is there', () => mailingsOfStep(mail()!).length === 3)
  expect(mail()).toMatchObject({ versions: [{ share: 333 }, { share: 333 }] })
  // It begins as the first is now.
  const third = mailingsOfStep(mail()!)[2]!
  expect(mailingById(satchel.db, third)).toMatchObject({ sequence_id: breeze, state: 'draft' })
  await versions.getByLabel('Share of C, percent').fill('10')
  await versions.getByLabel('Share of C, percent').press('Tab')
  await until('it has its share', () => JSON.stringify(mail()).includes('"share":100'))
  await versions.getByText('56.7').waitFor()
  await visitor.expectAccessible()
  await versions.getByRole('button', { name: 'Remove version A' }).click()
  await until('the next is the main one', () => mailingsOfStep(mail()!).length === 2)
  expect(mailingsOfStep(mail()!)).toEqual([mailingsOfStep(before!)[1], third])
  await page().locator('[aria-live]').getByRole('button', { name: 'Undo' }).click()
  await until('it is back', () => mailingsOfStep(mail()!).length === 3)
  await versions.getByRole('button', { name: 'Remove version C' }).click()
  await until('two are left', () => mailingsOfStep(mail()!).length === 2)
  // What one would get is chosen when one person is rehearsed, and it is that letter.
  await page().goto(`${satchel.url}/sequences/${breeze}?view=rehearsal`)
  await page().getByRole('button', { name: 'One person', exact: true }).click()
  const which = page().getByLabel('Which version they get')
  await which.selectOption({ index: 1 })
  const letter = page().getByRole('link', { name: 'The letter' }).last()
  expect(await letter.getAttribute('href')).toBe(`/mail/${mailingsOfStep(mail()!)[1]}/letter`)

  await page().goto(`${satchel.url}/sequences/${breeze}?view=results`)
  const judged = page().getByRole('region', { name })
  await judged.getByText('Clicked in it within 7 days').waitFor()
  const shares = () =>
    standingOf(satchel.db, breeze, 'mail-4', mapOfVersion(satchel.db, breeze, 1))?.shares
  await judged.getByRole('button', { name: 'All get B' }).click()
  await judged.getByText(/Who comes now gets A 0%, B 100%/).waitFor()
  expect(shares()).toEqual([0, 1_000])
  await visitor.expectAccessible()
  await judged.getByRole('button', { name: 'By lot again' }).click()
  await judged.getByText(/Not clear yet|clearly better/).waitFor()
  expect(shares()).toBeNull()
  await page().getByRole('button', { name: 'More', exact: true }).click()
  await page().getByRole('menuitem', { name: 'Discard changes' }).click()
  await until('it is as it runs', () => JSON.stringify(mail()) === JSON.stringify(before))
})

test('in quiet hours of the account a sequence’s mail waits for their end, or goes out where it says so', async () => {
  updateAccount(satchel.db, { quiet_from: null, quiet_to: null })
  await page().goto(`${satchel.url}/settings`)
  const hour = hourOf(practice(), 'Europe/London')
  const clock = (of: number) => `${String(of % 24).padStart(2, '0')}:00`
  await page().getByLabel('Quiet hours of sequences, from').selectOption(clock(hour))
  await page()
    .getByLabel('until', { exact: true })
    .selectOption(clock(hour + 4))
  await visitor.expectAccessible()
  await page().getByRole('button', { name: 'Save', exact: true }).click()
  await until('it is kept', () => quietHours(satchel.db)?.from === hour)
  const ends = afterQuiet(practice(), quietHours(satchel.db)!, 'Europe/London')
  const { id: breeze } = readSequences(satchel.db).find(({ name }) => name === 'First breeze')!
  const { map, list_id } = sequenceById(satchel.db, breeze)!
  const first = stepsInOrder(map).find(({ step }) => step.kind === 'mail')!
  const mailing = mailingsOfStep(first.step)[0]!
  const person = somebody(satchel.db, `night.${practice()}@harbourmail.example`, {
    ...{ list: list_id!, now: practice() },
  })
  const round = () =>
    one(
      satchel.db,
      q.selectFrom('enrolments').select(['step', 'due']).where('person_id', '=', person),
    )
  await until('she waits for their end', () => round()?.due === ends)
  expect(round()!.step).toBe(first.id)
  expect(accepted(mailing, person)).toBeNull()
  await jumpTo(ends + MINUTE)
  await until('she has it', () => accepted(mailing, person) !== null)
  expect(accepted(mailing, person)!).toBeGreaterThanOrEqual(ends)

  // Each mail says what it does in them.
  await page().goto(`${satchel.url}/sequences/${breeze}`)
  await page()
    .getByRole('button', { name: /^Mail:/ })
    .first()
    .click()
  await page().getByLabel('In the account’s quiet hours').selectOption('past')
  const step = () => sequenceById(satchel.db, breeze)!.map.steps[first.id]
  await until('it is kept', () => (step() as MailStep).quiet === 'past')
  await visitor.expectAccessible()
  await button('More').click()
  await page().getByRole('menuitem', { name: 'Discard changes' }).click()
  await until('it is as it was', () => !('quiet' in step()!))
  updateAccount(satchel.db, { quiet_from: null, quiet_to: null })
})
