import { expect, test } from 'vitest'
import { practiceTime } from '../core/time'
import { all, q } from '../database'
import { readClock } from '../database/account'
import { somebody } from '../database/made-up'
import { everythingKnown } from '../database/people'
import { readSequences, sequenceById } from '../database/sequences'
import { demoInBrowser } from './demo-in-browser'
import { until } from './installation'

const { satchel, visitor, page, seen } = demoInBrowser(300, { unread: true })
const button = (name: string | RegExp) => page().getByRole('button', { name, exact: true })
const practice = () => practiceTime(readClock(satchel.db)!, Date.now())
async function add(where: string | RegExp, kind: string) {
  await page().getByRole('button', { name: where }).first().click()
  await page()
    .getByRole('menuitem', { name: new RegExp(`^${kind} `) })
    .first()
    .click()
}
let id = 0
const sequence = () => sequenceById(satchel.db, id)!

test('a step hands people over to another program; what that needs is said', async () => {
  await page().goto(`${satchel.url}/sequences`)
  const many = readSequences(satchel.db).length
  await button('New sequence').click()
  await until('it is made', () => readSequences(satchel.db).length === many + 1)
  id = Math.max(...readSequences(satchel.db).map((one) => one.id))
  await page().waitForURL(new RegExp(`/sequences/${id}$`))
  await page().getByLabel('On behalf of the list').selectOption({ label: 'Workshop news' })
  await add(/^Add after Start/, 'Do')
  await page().getByLabel('Something to do').selectOption({ label: 'Hand over to another program' })
  await seen('People are handed over to another program, and its web address is missing.')
  const address = page().getByLabel('Its web address (JSON by POST, signed)')
  await address.fill('https://desk.galewright.example/in')
  await address.press('Enter')
  await seen('Do: hand over to desk.galewright.example')
  await page().getByLabel('Another value').selectOption({ label: 'First name' })
  await page().getByLabel('First name, its name there').fill('Called')
  await page().getByLabel('First name, its name there').press('Enter')
  await until('it is kept', () => JSON.stringify(sequence().map).includes('"as":"Called"'))
  await page().getByLabel('Something to do').selectOption({ label: 'Tell the team by mail' })
  await seen('The team is told by mail, and it is not said who, or what.')
  await page().getByLabel('Who of the team').selectOption('wren@galewright.example')
  await page().getByLabel('What the mail says').fill('Ring them up.')
  await page().getByLabel('What the mail says').press('Enter')
  await seen('Nobody was handed over yet.')
  await visitor.expectAccessible()
})

test('the practice customer file takes them, who waited for its answer goes on, and it tells back', async () => {
  await add(/^Add after Do/, 'Wait')
  await page().getByLabel('What is waited for').selectOption('happens')
  await page().getByLabel('Until who waits').selectOption({ label: 'another program answered' })
  await seen('Wait until another program took them')
  await page().getByLabel('What is in the answer').fill('result')
  await page().getByLabel('What is in the answer').press('Enter')
  await page().getByLabel('How it is asked').selectOption({ label: 'is' })
  await page().getByLabel('Value', { exact: true }).fill('added')
  await page().getByLabel('Value', { exact: true }).press('Enter')
  await until('it is kept', () => JSON.stringify(sequence().map).includes('"text":"added"'))
  await visitor.expectAccessible()
  await add(/^Add after Wait.*, it happened$/, 'Do')
  await page().getByLabel('Something to do').selectOption({ label: 'Give a tag' })
  await page().getByLabel('Tag', { exact: true }).fill('at the desk')
  await page().getByLabel('Tag', { exact: true }).press('Enter')
  await seen('Do: tag “at the desk”')
  await until('nothing keeps it', async () => {
    const got = await page().request.get(`${satchel.url}/api/sequences/${id}`)
    return ((await got.json()) as { problems: string[] }).problems.length === 0
  })
  await page().goto(`${satchel.url}/sequences/${id}`)
  await button('Start').click()
  await until('it runs', () => sequence().state === 'running')
  const list = sequence().list_id!
  const person = somebody(satchel.db, 'olga.desk@harbourmail.example', { list, now: practice() })
  const known = () => everythingKnown(satchel.db, person)!
  await until('they are at the desk', () => known().tags.includes('at the desk'))
  await until('the desk tells of it', () =>
    known().events.some(({ name }) => name === 'in customer file'),
  )
  expect(known().handed_over).toMatchObject([{ taken: true, answer: { result: 'added' } }])
  const file = await page().request.get(`${satchel.worldUrl}/customers`)
  expect(await file.text()).toContain('olga.desk@harbourmail.example')
  await until('the team has its mail', async () => {
    const mails = await page().request.get(`${satchel.worldUrl}/mailboxes.json`)
    const all = (await mails.json()) as { address: string; subject: string }[]
    return all.some(
      ({ address, subject }) =>
        address === 'wren@galewright.example' && subject.includes('came by a step of'),
    )
  })
})

test('what was answered is listed at the step, and somebody is handed over again', async () => {
  await page().goto(`${satchel.url}/sequences/${id}`)
  await page()
    .getByRole('button', { name: /^Do: hand over/ })
    .click()
  await page().getByRole('link', { name: 'olga.desk@harbourmail.example' }).first().waitFor()
  await seen(/taken: result added, number K-\d+/)
  await visitor.expectAccessible()
  await button('Send again').click()
  await seen('They are handed over again now.')
  const tries = () =>
    all(
      satchel.db,
      q.selectFrom('hand_overs').select(['tries', 'taken']).where('sequence_id', '=', id),
    )[0]
  await until('it is answered again', () => tries()?.taken === 1)
  // It is the same hand-over, so the desk answers as before.
  expect(tries()).toEqual({ tries: 1, taken: 1 })
  await seen(/taken: result added, number K-\d+/)
  await button('show the key').click()
  await visitor.expectAccessible()
  expect(visitor.errors).toEqual([])
})
