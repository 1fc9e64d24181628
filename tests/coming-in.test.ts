import { expect, test } from 'vitest'
import { addressed } from '../core/delivery'
import { DAY, HOUR, practiceTime } from '../core/time'
import { all, one, q, run } from '../database'
import { readClock } from '../database/account'
import { addApiToken } from '../database/imports'
import { personDetails, readLists, tagNamed, tagPeople } from '../database/people'
import { somebody } from '../database/made-up'
import { actRecorder } from '../database/sending'
import { addSegment } from '../database/segments'
import { arrivalsOf, readSequences, sequenceById } from '../database/sequences'
import { demoInBrowser } from './demo-in-browser'
import { until } from './installation'
import { finishedLetter } from './subscribers'

const { satchel, visitor, page, seen, jumpTo } = demoInBrowser(300, { unread: true })
const button = (name: string | RegExp) => page().getByRole('button', { name, exact: true })
const practice = () => practiceTime(readClock(satchel.db)!, Date.now())
let id = 0
const sequence = () => sequenceById(satchel.db, id)!
const list = () => readLists(satchel.db)[0]!.id
const join = (name: string, values = {}) =>
  somebody(satchel.db, `${name}@harbourmail.example`, { list: list(), now: practice(), values })
const leavesBasket = (person_id: number) =>
  run(
    satchel.db,
    q.insertInto('events').values({ person_id, name: 'basket', at: practice(), props: '{}' }),
  )
const rounds = (person: number) =>
  all(
    satchel.db,
    q
      .selectFrom('enrolments')
      .select(['round', 'state', 'why'])
      .where('sequence_id', '=', id)
      .where('person_id', '=', person)
      .orderBy('round'),
  )
const mailed = (person: number) =>
  all(
    satchel.db,
    q
      .selectFrom('recipients')
      .innerJoin('mailings', 'mailings.id', 'recipients.mailing_id')
      .select('round')
      .where('sequence_id', '=', id)
      .where('person_id', '=', person)
      .where('accepted_at', 'is not', null),
  ).length
async function jump(ms: number) {
  await jumpTo(practice() + ms)
  await until('the clock is there', () => readClock(satchel.db)!.jumpTo === null)
}

test('how people come in, and how often, is chosen at the start, and can be undone', async () => {
  await page().goto(`${satchel.url}/sequences`)
  await page().getByRole('button', { name: 'New sequence' }).click()
  await until('it is made', () => readSequences(satchel.db).length === 5)
  id = readSequences(satchel.db).find(({ name }) => name === 'Sequence 5')!.id
  await page().waitForURL(new RegExp(`/sequences/${id}$`))
  await page().getByLabel('Another way in').selectOption('left behind')
  await seen('People come in by leaving something behind, and it is not said by which event.')
  await page().getByLabel('Which event is left behind').selectOption('basket')
  await button('Remove: joins the list').click()
  await seen('Start: leaves “basket” behind')
  await seen('no order in 4 hours · once a person')
  await page().getByLabel('Again').selectOption('each')
  await seen('no order in 4 hours · each time')
  await until('it is kept', () => sequence().map.start.again.is === 'each')
  await visitor.expectAccessible()
  await button('Undo').first().click()
  await until('it is undone', () => sequence().map.start.again.is === 'never')
  await button('Redo').first().click()
  await until('it is done again', () => sequence().map.start.again.is === 'each')
  // A date of theirs: what it says, and what it lacks until a field is chosen.
  await page().getByLabel('Another way in').selectOption('date')
  await seen('People come in by a date of theirs, and it is not said which.')
  await page().getByLabel('Which date').selectOption({ label: 'Birthday' })
  await page().getByLabel('Days').fill('3')
  await page().getByLabel('Days').press('Tab')
  await page().getByLabel('Before or after').selectOption({ label: 'before' })
  await until('it is kept', () => JSON.stringify(sequence().map.start.by).includes('"days":-3'))
  await page()
    .getByTitle(/^Start: leaves “basket” behind, or 3 days before their Birthday/)
    .waitFor()
  await visitor.expectAccessible()
})

test('also by a tag, a field, a mailing that is not opened, and at a moment by a calendar rule', async () => {
  const kept = () => JSON.stringify(sequence().map.start.by)
  const before = kept()
  const another = page().getByLabel('Another way in')
  await another.selectOption('tag')
  await seen('People come in by a tag, and it is not said which.')
  await page().getByLabel('Gets or loses').selectOption('loses')
  await page().getByLabel('Which tag starts it').selectOption({ index: 1 })
  await another.selectOption('field')
  await page().getByLabel('Which field starts it').selectOption({ label: 'Town' })
  await page().getByLabel('To the value').fill('Orrin')
  await page().getByLabel('To the value').press('Tab')
  await page()
    .getByTitle(/^Start: .*loses the tag .+, or has Town set to Orrin/)
    .waitFor()
  await another.selectOption('mailed')
  await page().getByLabel('Which mailing starts it').selectOption({ index: 1 })
  await page()
    .getByTitle(/^Start: .*or does not open “/)
    .waitFor()
  await another.selectOption('moment')
  await seen('People come in at a moment, and it is not said on which day.')
  await page().getByLabel('On the day').fill('4 Jan 2027')
  await page().getByLabel('On the day').press('Tab')
  await page()
    .getByLabel('Again', { exact: true })
    .first()
    .selectOption('every first Monday of the month')
  await seen(/every first Monday of the month, from .*4 Jan 2027 on, at 09:00/)
  await visitor.expectAccessible()
  await page().getByLabel('Again', { exact: true }).first().selectOption('own')
  await page().getByLabel('The rule').fill('every other day')
  await page().getByLabel('The rule').press('Tab')
  await seen('This is no rule of days, such as FREQ=WEEKLY;BYDAY=MO,TH.')
  await page().getByLabel('The rule').fill('freq=daily;interval=2')
  await page().getByLabel('The rule').press('Tab')
  await until('it is kept', () => kept().includes('"rule":"FREQ=DAILY;INTERVAL=2"'))
  for (const name of [/a tag/, /a field/, /a mailing/, /at a moment/])
    await page()
      .getByRole('button', { name: new RegExp(`^Remove: .*${name.source}`) })
      .click()
  await until('they are taken out', () => kept() === before)
})

const mails = () =>
  Object.values(sequence().map.steps).flatMap((step) =>
    step.kind === 'mail' ? [step.mailingId] : [],
  )
/** Writes the letters of all its mails, and waits until nothing keeps it from starting. */
async function writeLetters() {
  for (const mailing of mails()) {
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
}

test('a basket left twice is mailed twice, each time in its own round', async () => {
  await page()
    .getByRole('button', { name: /^Add after Start/ })
    .click()
  await page()
    .getByRole('menuitem', { name: /^Mail / })
    .click()
  await until('there is a mail', () => mails().length === 1)
  await writeLetters()
  await page().goto(`${satchel.url}/sequences/${id}`)
  await button('Start').click()
  await until('it runs', () => sequence().state === 'running')
  // The practice world’s readers may order by the letter they get, and then nothing is left behind: one of five is enough.
  const them = ['tove', 'mina', 'ola', 'piet', 'wren'].map((name) => join(`${name}.again`))
  const times = (n: number) => them.find((one) => mailed(one) === n)
  them.forEach(leavesBasket)
  await jump(5 * HOUR)
  await until('the first mail went', () => times(1) !== undefined)
  them.forEach(leavesBasket)
  await jump(5 * HOUR)
  await until('the second mail went', () => times(2) !== undefined)
  const tove = times(2)!
  expect(rounds(tove).map(({ round }) => round)).toEqual([0, 1])
  await page().goto(`${satchel.url}/people/${tove}`)
  await seen('came into Sequence 5, time 2')
})

test('a birthday comes round, and is mailed each year', async () => {
  const year = new Date(practice()).getUTCFullYear()
  const day = new Date(practice() + 5 * DAY).toISOString().slice(5, 10)
  const mina = join('mina.born', { birthday: `${year - 30}-${day}` })
  await jump(4 * DAY)
  await until('it went', () => mailed(mina) === 1)
  for (let n = 0; n < 4; n++) await jump(91 * DAY)
  await until('it went again', () => mailed(mina) === 2)
})

test('one is begun from a template, whose letters are written, and sends itself', async () => {
  const before = id
  await page().goto(`${satchel.url}/sequences`)
  await page().getByRole('button', { name: 'New sequence' }).click()
  await until('it is made', () => readSequences(satchel.db).length === 6)
  id = readSequences(satchel.db).find(({ name }) => name === 'Sequence 6')!.id
  await page().waitForURL(new RegExp(`/sequences/${id}$`))
  await seen('Or begin from one that is drawn')
  await visitor.expectAccessible()
  await page()
    .getByRole('button', { name: /^Welcome in ten days/ })
    .click()
  await seen('Mail: Good to have you here')
  await until('it is kept', () => mails().length === 4)
  await visitor.expectAccessible()
  // What stands in square brackets is to be replaced first.
  expect(await button('Start').isDisabled()).toBe(true)
  await button('Undo').first().click()
  await seen('Or begin from one that is drawn')
  await button('Redo').first().click()
  await until('it is back', () => mails().length === 4)
  await writeLetters()
  await page().goto(`${satchel.url}/sequences/${id}`)
  await button('Start').click()
  await until('it runs', () => sequence().state === 'running')
  const nina = join('nina.new')
  await jump(14 * DAY)
  await until('all four went', () => mailed(nina) === 4)
  await button('More').click()
  await page().getByRole('menuitem', { name: 'End…' }).click()
  await button('End it').click()
  await until('it is over', () => sequence().state === 'ended')
  id = before
})

test('somebody is let in from their page, and taken out again', async () => {
  const before = id
  id = readSequences(satchel.db).find(({ name }) => name === 'First breeze')!.id
  const otto = somebody(satchel.db, 'otto.hand@harbourmail.example', { now: practice() })
  await page().goto(`${satchel.url}/people/${otto}`)
  await button('Sequences…').click()
  await page().getByLabel('Let into').selectOption({ label: 'First breeze' })
  await visitor.expectAccessible()
  await button('Let in').click()
  // Who is not on its list does not come in.
  await seen(/They did not come in/)
  expect(rounds(otto)).toEqual([])
  await page().keyboard.press('Escape')
  const vera = join('vera.hand')
  await until('she is inside by joining', () => rounds(vera).length === 1)
  await page().goto(`${satchel.url}/people/${vera}`)
  await button('Sequences…').click()
  await button('Take out of First breeze').click()
  await until('she is out', () => rounds(vera)[0]!.state === 'left')
  expect(rounds(vera)).toMatchObject([{ why: 'by hand' }])
  await seen('left First breeze: by hand')
  id = before
})

test('those chosen in the table are let in, and taken out again by undo', async () => {
  const some = ['nils', 'runa'].map((name) => join(`${name}.chosen`, { town: 'Hvasser' }))
  await page().goto(`${satchel.url}/people?q=chosen`)
  await seen('runa.chosen@harbourmail.example')
  const boxes = page().getByRole('checkbox', { name: /^Choose (?!everybody)/ })
  await boxes.nth(0).click()
  await boxes.nth(1).click()
  await button('Sequence…').click()
  const dialog = page().getByRole('dialog', { name: 'Let them into a sequence' })
  await dialog.getByText('2 people chosen in the table.').waitFor()
  expect(await dialog.getByRole('button', { name: 'Let them in' }).isDisabled()).toBe(true)
  await visitor.expectAccessible()
  await dialog.getByLabel('Sequence').selectOption({ label: sequence().name })
  await dialog.getByRole('button', { name: 'Let them in' }).click()
  await seen(`2 people on their way into “${sequence().name}”, as far as its rule lets them.`)
  await page().getByRole('button', { name: 'Undo' }).last().click()
  await until('they are out, or never were in', async () => {
    const inside = some.flatMap(rounds).filter(({ state }) => state === 'inside')
    return inside.length === 0 && arrivalsOf(satchel.db, id) === 0
  })
})

test('who is new by an import is let in from its page', async () => {
  const { import: brought } = one(
    satchel.db,
    q
      .selectFrom('imports')
      .select(['id as import'])
      .where('added', '>', 0)
      .orderBy('id', 'desc')
      .limit(1),
  )!
  const nina = join('nina.brought')
  run(
    satchel.db,
    q
      .updateTable('people')
      .set({ source: `import:${brought}` })
      .where('id', '=', nina),
  )
  await page().goto(`${satchel.url}/people/imports/${brought}`)
  await button('Let them into a sequence…').click()
  const dialog = page().getByRole('dialog', { name: 'Let them into a sequence' })
  await dialog.getByLabel('Sequence').selectOption({ label: sequence().name })
  await dialog.getByRole('button', { name: 'Let them in' }).click()
  await seen(/on their way into “/)
  await until('she is inside', () => rounds(nina).length === 1)
})

test('who fits already comes in when it starts, others by the API; and a fork asks on which link they clicked', async () => {
  const before = id
  const tag = `early bird ${practice()}`
  const [ola, pia] = ['ola', 'pia'].map((name) => join(`${name}.${practice()}`)) as [number, number]
  // Not on its list.
  const guest = somebody(satchel.db, `guest.${practice()}@harbourmail.example`, { now: practice() })
  tagPeople(satchel.db, [ola, pia, guest], tagNamed(satchel.db, tag), true)
  const many = readSequences(satchel.db).length
  await page().goto(`${satchel.url}/sequences`)
  await page().getByRole('button', { name: 'New sequence' }).click()
  await until('it is made', () => readSequences(satchel.db).length === many + 1)
  id = Math.max(...readSequences(satchel.db).map((one) => one.id))
  await page().waitForURL(new RegExp(`/sequences/${id}$`))
  await page().getByLabel('On behalf of the list').selectOption(String(list()))
  await page().getByLabel('Another way in').selectOption('tag')
  await page().getByLabel('Which tag starts it').selectOption({ label: tag })
  await page()
    .getByRole('button', { name: /^Remove: joins/ })
    .click()
  await page().getByLabel('who fits already comes in, too').check()
  await seen('2 people on the list come in when it starts.')
  await page().getByLabel('Another way in').selectOption('api')
  await page()
    .getByTitle(/^Start: .*or is let in by the API/)
    .waitFor()
  await visitor.expectAccessible()
  const add = async (where: RegExp, kind: string) => {
    await page().getByRole('button', { name: where }).first().click()
    await page()
      .getByRole('menuitem', { name: new RegExp(`^${kind} `) })
      .first()
      .click()
  }
  await add(/^Add after Start/, 'Mail')
  await until('there is a mail', () => mails().length === 1)
  await writeLetters()
  await page().goto(`${satchel.url}/sequences/${id}`)
  await add(/^Add after Mail:/, 'Wait')
  await add(/^Add after Wait/, 'Fork')
  await page().getByLabel('Which link').selectOption({ label: 'See the forecast' })
  await add(/^Add after Fork:.*, yes$/, 'Do')
  await page().getByLabel('Something to do').selectOption({ label: 'Give a tag' })
  await page().getByLabel('Tag', { exact: true }).fill('saw the forecast')
  await page().getByLabel('Tag', { exact: true }).press('Enter')
  await until('it is kept', () => JSON.stringify(sequence().map).includes('saw the forecast'))
  await button('Start').click()
  await until('it runs', () => sequence().state === 'running')
  await until('who had the tag is inside, and mailed', () => mailed(ola) + mailed(pia) === 2)
  expect(rounds(guest)).toEqual([])

  // A program lets somebody in; who is not on file is refused.
  const { token } = addApiToken(satchel.db, 'Shop', practice())
  const quin = join(`quin.${practice()}`)
  const address = one(satchel.db, q.selectFrom('people').select('address').where('id', '=', quin))!
  const answer = await page().request.post(`${satchel.url}/api/v1/sequences`, {
    headers: { authorization: `Bearer ${token}` },
    data: [
      { ...address, sequence: id },
      { address: 'nobody@harbourmail.example', sequence: id },
    ],
  })
  expect(answer.status()).toBe(200)
  await until('they are inside, too', () => rounds(quin).length === 1 && mailed(quin) === 1)

  const [mailing] = mails() as [number]
  const click = { kind: 'click' as const, link: 0, agent: 'SailMail/4.2', method: 'GET' }
  actRecorder(satchel.db)([{ ...addressed(mailing, ola), ...click, at: practice() + HOUR }])
  await jump(3 * DAY)
  const finished = (person: number) => rounds(person).every(({ state }) => state === 'finished')
  await until('all are through', () => [ola, pia, quin].every(finished))
  const tags = (person: number) => personDetails(satchel.db, person)!.tags
  expect(tags(ola)).toContain('saw the forecast')
  for (const other of [pia, quin]) expect(tags(other)).not.toContain('saw the forecast')
  id = before
})

test('a segment is let in by hand, with how many they are before', async () => {
  const values = { town: 'Farsund' }
  const some = ['ada', 'bo', 'cleo'].map((name) => join(`${name}.farsund`, values))
  const rule = { kind: 'field', key: 'town', test: { is: 'equal', text: 'Farsund' } } as const
  addSegment(satchel.db, 'From Farsund', rule, practice())
  await page().goto(`${satchel.url}/sequences/${id}`)
  await page().getByLabel('Let in a segment').selectOption({ label: 'From Farsund' })
  await seen(/3 people of it are on the list and may be mailed;\s+3 were never inside/)
  await visitor.expectAccessible()
  await button('Let them in').click()
  await until('they are inside', () => some.every((person) => rounds(person).length === 1))
  expect(visitor.errors.filter((error) => !error.includes('409'))).toEqual([])
})
