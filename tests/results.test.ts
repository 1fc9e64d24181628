import { readAccount } from '../database/account'
import { readFileSync } from 'node:fs'
import { strFromU8, unzipSync } from 'fflate'
import { expect, test } from 'vitest'
import { dataOutById, listDataOuts, listDataSchedules } from '../database/exports'
import { makeToken } from '../core/delivery'
import { MESSAGES_SHOWN } from '../core/results'
import { hourOf } from '../core/time'
import { all, one, q } from '../database'
import { totalsOf } from '../database/mailings'
import { sequenceMails } from '../database/results'
import { repliedCount, repliesOf } from '../database/sending'
import { demoInBrowser } from './demo-in-browser'
import { until } from './installation'

/** What came of mailings: taken out, looked at by parts, and led back to people. */
const { satchel, visitor, page, seen } = demoInBrowser(900)
const idOf = (name: string) =>
  one(satchel.db, q.selectFrom('mailings').select('id').where('name', '=', name))!.id

test('its messages stand one by one, by where they stand, and what is chosen has an address', async () => {
  const id = idOf('Wind notes 46')
  await page().goto(`${satchel.url}/results/${id}`)
  const list = page().getByRole('region', { name: 'Messages, one by one' })
  const rows = list.locator('tbody tr')
  await rows.first().waitFor()
  expect(await rows.count()).toBe(MESSAGES_SHOWN)
  await list.getByRole('button', { name: 'Older' }).click()
  await page().waitForURL(/offset=50/)
  await list.getByRole('button', { name: 'Newer' }).waitFor()
  // An answer that comes late is not shown as what was chosen since.
  let letGo = () => {}
  const held = new Promise<void>((go) => (letGo = go))
  await page().route('**/messages?state=bounced*', async (route) => {
    await held
    await route.continue()
  })
  await list.getByLabel('Messages, one by one').selectOption('bounced')
  await list.getByText('Looking…').waitFor()
  expect(await rows.count()).toBe(0)
  letGo()
  const { bounced } = totalsOf(satchel.db, id)!
  await until('those that bounced', async () => (await rows.count()) === bounced)
  for (const row of await rows.allInnerTexts()) expect(row).toMatch(/\tBounced\t/)
  await page().unroute('**/messages?state=bounced*')
  await visitor.expectAccessible()
  await page().reload()
  await until('they are there again', async () => (await rows.count()) === bounced)
  // To whom one of them went, by part of a name or address.
  const name = (await rows.first().locator('a').innerText()).slice(0, 12)
  await list.getByPlaceholder('name or address').fill(name)
  await list.getByPlaceholder('name or address').press('Enter')
  await page().waitForURL(/state=bounced&to=/)
  await until('those of that name', async () => {
    const texts = await rows.locator('a').allInnerTexts()
    return texts.length > 0 && texts.length <= bounced && texts.every((one) => one.includes(name))
  })
  await visitor.expectAccessible()
})

test('the data of a mailing comes out as a ZIP whose counts are those of the page', async () => {
  const id = idOf('Wind notes 46')
  await page().goto(`${satchel.url}/results/${id}`)
  await page().getByRole('link', { name: 'Export its data' }).click()
  await seen('Nothing yet. Files stand here for 30 days.')
  await visitor.expectAccessible()
  expect(await page().getByLabel('From', { exact: true }).inputValue()).toBe(String(id))
  await page().getByRole('button', { name: 'Export', exact: true }).click()
  const link = page().getByRole('link', { name: /^Download the ZIP/ })
  await link.waitFor()
  const coming = page().waitForEvent('download')
  await link.click()
  const download = await coming
  expect(download.suggestedFilename()).toMatch(/^mailings-\d{4}-\d\d-\d\d\.zip$/)
  const files = unzipSync(readFileSync(await download.path()))
  const rows = (name: string) => strFromU8(files[`${name}.csv`]!).trimEnd().split('\r\n').length - 1
  const totals = totalsOf(satchel.db, id)!
  expect(rows('opens')).toBe(totals.opened)
  expect(rows('clicks')).toBe(totals.clicked)
  const told = new RegExp(`Opens ${rows('opens')} · Clicks ${rows('clicks')} `)
  await seen(told)
  await page().getByRole('button', { name: 'Delete' }).click()
  await seen('Nothing yet. Files stand here for 30 days.')
})

test('a schedule takes data out at its time, and a link by mail leads to the file', async () => {
  await page().getByLabel('How often').selectOption('day')
  await page().getByLabel('Link by mail').fill('wren.galloway@galewright.example')
  await page().getByLabel('Time', { exact: true }).selectOption('between')
  await page().getByLabel('First day').fill('2026-11-20')
  await page().getByLabel('Last day').fill('2026-11-10')
  await page().getByRole('button', { name: 'Set the schedule' }).click()
  await seen('The last day is before the first.')
  await page().getByLabel('Time', { exact: true }).selectOption('30')
  await page().getByLabel('From', { exact: true }).selectOption('several')
  const which = page().getByRole('group', { name: 'Which mailings' })
  await which.getByLabel('Wind notes 46', { exact: true }).check()
  await which.getByLabel('Wind notes 45', { exact: true }).check()
  await page().getByLabel('At', { exact: true }).selectOption({ label: '09:00' })
  await page().getByRole('button', { name: 'Set the schedule' }).click()
  await seen(/2 mailings, the last 30 days/)
  const [schedule] = listDataSchedules(satchel.db)
  const { zone } = readAccount(satchel.db)!
  expect(hourOf(schedule!.next_at, zone)).toBe(9)
  await page().getByRole('button', { name: 'End it' }).waitFor()
  await visitor.expectAccessible()
  await page()
    .getByRole('button', { name: /Practice clock/ })
    .click()
  await page().getByRole('button', { name: '1 day' }).click()
  await until('it is made', () => listDataOuts(satchel.db)[0]?.made_at != null)
  const out = dataOutById(satchel.db, listDataOuts(satchel.db)[0]!.id)!
  const visitors = await page().context().browser()!.newContext()
  const got = await visitors.request.get(`${satchel.url}/data/${out.key}`)
  expect([got.status(), got.headers()['content-type']]).toEqual([200, 'application/zip'])
  expect((await got.body()).length).toBe(out.size)
  const wrong = await visitors.request.get(`${satchel.url}/data/${'0'.repeat(48)}`)
  expect(wrong.status()).toBe(404)
  await visitors.close()
  await page().getByRole('button', { name: 'End it' }).click()
  await page().getByRole('button', { name: 'Undo' }).click()
  await page().getByRole('button', { name: 'End it' }).waitFor()
  await page().getByRole('button', { name: 'End it' }).click()
})

test('a reply that is handed in stands with the mailing and its writer, and goes on to the sender', async () => {
  const id = idOf('Wind notes 46')
  const { person_id, normal } = one(
    satchel.db,
    q
      .selectFrom('recipients')
      .innerJoin('people', 'people.id', 'recipients.person_id')
      .select(['person_id', 'normal'])
      .where('mailing_id', '=', id)
      .where('state', '=', 'accepted')
      .where('replied_at', 'is', null)
      .limit(1),
  )!
  const key = Buffer.from(readAccount(satchel.db)!.token_key, 'hex')
  const to = `r-${makeToken(key, 'bounce', id, person_id)}@galewright.example`
  const mail = `From: ${normal}\r\nTo: ${to}\r\nSubject: Re: wind\r\n\r\nWhich line for force five, please?\r\n`
  const handedIn = await fetch(satchel.env.WORLD_REPORTS_URL!, { method: 'POST', body: mail })
  expect(handedIn.status).toBe(202)
  await until('it is read', () => repliesOf(satchel.db, person_id).length > 0)
  await until('it goes on', () => repliesOf(satchel.db, person_id)[0]!.passed_on_at !== null)
  await page().goto(`${satchel.url}/results/${id}`)
  await seen('What they wrote back')
  await seen('Which line for force five, please?')
  const replied = repliedCount(satchel.db, id)
  await seen(replied === 1 ? '1 person replied' : `${replied} people replied`)
  await visitor.expectAccessible()
  await page().goto(`${satchel.url}/people/${person_id}`)
  await seen('What they wrote back')
  await seen('Which line for force five, please?')
  // One that went past us is not told as none.
  await page().goto(`${satchel.url}/results/${idOf('Wind notes 1')}`)
  await seen('replied: not measured')
})

test('a mailing is looked at by parts, beside another, and a figure leads to its people', async () => {
  const id = idOf('Wind notes 46')
  const parts = page().locator('section').filter({ hasText: 'lines are 95% intervals' })
  await page().goto(`${satchel.url}/results/${id}`)
  await parts.getByLabel('By').selectOption({ label: 'Town' })
  const town = parts.getByRole('row').nth(1)
  await parts.getByRole('columnheader', { name: 'Town' }).waitFor()
  await visitor.expectAccessible()
  const delivered = Number((await town.getByRole('cell').nth(1).innerText()).replace(/\D/g, ''))
  await page().getByLabel('Beside').selectOption({ label: 'Wind notes 45' })
  await page()
    .getByText(/points (more|less)|no difference beyond chance/)
    .first()
    .waitFor()
  await town.getByRole('link').click()
  await page().waitForURL(/segments\/new/)
  const sentTo = all(
    satchel.db,
    q
      .selectFrom('recipients')
      .innerJoin('people', 'people.id', 'recipients.person_id')
      .select(['recipients.person_id', 'people.fields'])
      .where('mailing_id', '=', id)
      .where('accepted_at', 'is not', null),
  )
  expect(delivered).toBeGreaterThan(0)
  const asked = page().getByRole('main')
  await until('both are asked', async () =>
    (await asked.locator('option:checked').allInnerTexts()).includes('Was sent'),
  )
  await page().goBack()
  const totals = totalsOf(satchel.db, id)!
  await page().getByTitle('Opened, by people: see who').click()
  await page().waitForURL(/segments\/new/)
  await asked
    .getByText(new RegExp(`^${totals.opened}$`))
    .first()
    .waitFor()
  await seen(/^people now/)
  expect(sentTo.length).toBeGreaterThanOrEqual(totals.opened)
})

test('mail of sequences stands in the list, with each reader’s own hours, beside its like', async () => {
  const mails = sequenceMails(satchel.db)
  const [first] = mails
  await page().goto(`${satchel.url}/results/account`)
  await seen('mails of sequences among them by when each was accepted')
  await page().getByRole('button', { name: 'Sequences', exact: true }).click()
  const listed = page().getByRole('navigation', { name: 'Results' })
  await listed.getByRole('link', { name: first!.name }).first().click()
  await seen('of the sequence')
  await seen('since each got it')
  await seen('Against other mail of sequences')
  const others = mails.filter(({ id, delivered }) => id !== first!.id && delivered > 0)
  const beside = page().getByLabel('Beside')
  await until(
    'only mail of sequences is offered',
    async () => (await beside.getByRole('option').count()) === mails.length,
  )
  await beside.selectOption(String(others[0]!.id))
  await page()
    .getByText(/points (more|less)|no difference beyond chance/)
    .first()
    .waitFor()
  await visitor.expectAccessible()
  await page().keyboard.press('Escape')
  await page().locator('h1').first().click()
  await page().keyboard.press('j')
  await page().waitForURL(`${satchel.url}/results/${mails[1]!.id}`)
})

test('whoever leaves may say why, and it stands in the results', async () => {
  const { mailing_id, person_id } = one(
    satchel.db,
    q
      .selectFrom('recipients')
      .innerJoin('subscriptions', 'subscriptions.person_id', 'recipients.person_id')
      .innerJoin('mailings', 'mailings.id', 'recipients.mailing_id')
      .select(['recipients.mailing_id', 'recipients.person_id'])
      .whereRef('subscriptions.list_id', '=', 'mailings.list_id')
      .where('subscriptions.state', '=', 'subscribed')
      .where('recipients.mailing_id', '=', idOf('Wind notes 46'))
      .where('recipients.left_at', 'is', null),
  )!
  const { token_key: key } = readAccount(satchel.db)!
  const token = makeToken(Buffer.from(key, 'hex'), 'leave', mailing_id, person_id)
  const reader = await page().context().browser()!.newContext()
  const theirs = await reader.newPage()
  await theirs.goto(`${satchel.url}/u/${token}`)
  await theirs.getByRole('button').first().click()
  await theirs.getByText('Would you say why?').waitFor()
  await theirs.getByLabel('Too many letters').check()
  await theirs.getByLabel('In your words').fill('<b>twice</b> a week')
  await theirs.getByRole('button', { name: 'Say why' }).click()
  await theirs.getByText('Thank you').waitFor()
  await reader.close()
  await page().goto(`${satchel.url}/results/${mailing_id}`)
  const told = all(
    satchel.db,
    q.selectFrom('leave_reasons').select('reason').where('mailing_id', '=', mailing_id),
  ).length
  await seen(told === 1 ? '1 person said why:' : `${told} people said why:`)
  await seen('Too many letters')
})

test('the year stands on one page, and each subject leads to its mailing', async () => {
  await page().getByRole('link', { name: 'Over the year' }).click()
  await seen('Reading, month by month')
  await page()
    .getByRole('img', { name: /% opened/ })
    .waitFor()
  await visitor.expectAccessible()
  const mailings = all(
    satchel.db,
    q.selectFrom('mailings').select('id').where('started_at', 'is not', null),
  ).length
  await page()
    .getByRole('button', { name: /^All \d+$/ })
    .click()
  const subjects = page().locator('section').filter({ hasText: 'drawn towards the mean' })
  const listed = await subjects.getByRole('link').count()
  expect(listed).toBeGreaterThan(10)
  expect(listed).toBeLessThanOrEqual(mailings)
  const first = await subjects.getByRole('link').first().innerText()
  await subjects.getByRole('link').first().click()
  await seen(`“${first}”`)
})
