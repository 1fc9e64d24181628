import { simpleParser } from 'mailparser'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest'
import { makeToken } from '../core/delivery'
import { all, one, q, run } from '../database'
import { readAccount } from '../database/account'
import { mailingById } from '../database/mailings'
import {
  addField,
  addList,
  changeField,
  changeList,
  changePerson,
  mergePeople,
  personByAddress,
  personDetails,
  subscriptionState,
  valuesOf,
} from '../database/people'
import { ownLimitsOf } from '../database/readers'
import { readerLanguages } from '../core/readers'
import { DAY } from '../core/time'
import { PAGE_WAITS } from './patience'
import { visit, type Visitor } from './browser'
import { install, until, type Installation } from './installation'
import { mailTo } from './practice-mail'
import { addSubscribers, dueMailing } from './subscribers'

let satchel: Installation
let visitor: Visitor
let mailing: number
let offers: number
let key: Buffer
/** Readers have no scripts here: all of it works without. */
let page: Page
const pageOf = (person: number, of = mailing) =>
  `${satchel.url}/r/${makeToken(key, 'reader', of, person)}`
const state = (person: number, list: number) => subscriptionState(satchel.db, person, list)
const press = (name: string) => page.getByRole('button', { name, exact: true }).click()
const seen = (text: string | RegExp) => page.getByText(text).first().waitFor()

beforeAll(async () => {
  satchel = await install({ env: { WORLD_CLOCK_URL: 'http://127.0.0.1:9/' } })
  const { db } = satchel
  addSubscribers(db, 12, 'silent.example')
  offers = addList(db, { name: 'Offers', description: '' }, 0)
  addList(db, { name: 'Board members', description: '' }, 0)
  changeList(db, 1, { public_about: 'Five days of wind', public_often: 'every Tuesday' })
  changeList(db, offers, { offered: 1 })
  addField(db, { key: 'town', name: 'Town', kind: 'text' })
  addField(db, { key: 'kites', name: 'Kites', kind: 'number' })
  addField(db, { key: 'inside', name: 'Our own notes', kind: 'text' })
  for (const field of ['town', 'kites']) changeField(db, field, { readers: 1 })
  await Promise.all([satchel.start('world'), satchel.start('web'), satchel.start('engine')])
  mailing = dueMailing(db)
  key = Buffer.from(readAccount(db)!.token_key, 'hex')
  await until('it is sent', () => mailingById(db, mailing)!.state === 'sent')
  visitor = await visit()
  const context = await visitor.page.context().browser()!.newContext({ javaScriptEnabled: false })
  page = await context.newPage()
  page.setDefaultTimeout(PAGE_WAITS)
})
beforeEach(() => page.setViewportSize({ width: 1280, height: 800 }))
afterAll(async () => {
  await visitor?.close()
  await satchel?.stop()
})

/** A mail that goes to an address, and the link in it by which something is confirmed. */
async function confirmingMail(address: string, subject: string) {
  const mail = await mailTo(satchel, address, subject)
  const link = /http\S+\/r\/confirm\/[\w-]+/.exec(mail.text ?? '')?.[0]
  return { mail, link: link! }
}

test('the footer of what went out leads to the reader’s own page', async () => {
  const source = await (await fetch(`${satchel.worldUrl}/mail/0.eml`)).arrayBuffer()
  const { html, text } = await simpleParser(Buffer.from(source))
  const link = /href="([^"]+\/r\/[a-z2-7]+)"[^>]*>Change what you get</.exec(html || '')![1]!
  expect(text).toContain(`Change what you get: ${link}`)
  expect(html).toMatch(/href="[^"]+\/u\/[a-z2-7]+"[^>]*>Unsubscribe</)
  const before = all(satchel.db, q.selectFrom('evidence').selectAll()).length
  await visitor.page.goto(link)
  await visitor.page.getByRole('heading', { name: 'Your lists' }).waitFor()
  await visitor.expectAccessible()
  await visitor.page.setViewportSize({ width: 320, height: 700 })
  const wide = await visitor.page.evaluate('document.documentElement.scrollWidth')
  expect(wide).toBe(320)
  await visitor.expectAccessible()
  // Looking at it changes nothing.
  expect(all(satchel.db, q.selectFrom('evidence').selectAll())).toHaveLength(before)
})

test('lists are joined and left by ticking, without a script, and only those that were offered', async () => {
  await page.goto(pageOf(1))
  await seen('Five days of wind')
  await seen(/every Tuesday · subscribed since/)
  expect(await page.getByText('Board members').count()).toBe(0)
  await page.getByRole('checkbox', { name: 'Offers' }).check()
  await page.getByRole('checkbox', { name: 'Wind notes' }).uncheck()
  await press('Save your lists')
  await seen('Saved. It takes effect at once.')
  expect([state(1, 1), state(1, offers)]).toEqual(['unsubscribed', 'subscribed'])
  expect(await page.getByRole('checkbox', { name: 'Offers' }).isChecked()).toBe(true)
  const forged = await fetch(pageOf(1), { method: 'POST', body: 'do=lists&on=3&not=3' })
  expect(forged.ok).toBe(true)
  expect(state(1, 3)).toBeNull()
})

test('a page that stood open while something else was changed undoes none of it', async () => {
  await page.goto(pageOf(2))
  await seen('Your lists')
  const elsewhere = `do=lists&was=1&not=${offers}&on=1&on=${offers}`
  await fetch(pageOf(2), { method: 'POST', body: elsewhere })
  expect(state(2, offers)).toBe('subscribed')
  await press('Save your lists')
  await seen('Saved. It takes effect at once.')
  expect([state(2, 1), state(2, offers)]).toEqual(['subscribed', 'subscribed'])
})

test('a pause and at most one a week are chosen, seen in the person’s page, and ended', async () => {
  await page.goto(pageOf(3))
  await press('Pause for 4 weeks')
  await seen('Saved. It takes effect at once.')
  await seen(/Paused until/)
  const { pausedUntil } = ownLimitsOf(satchel.db, 3)
  expect(Math.round((pausedUntil! - Date.now()) / DAY)).toBe(28)
  await press('At most one letter a week')
  await seen('You get at most one letter a week.')
  const team = visitor.page
  await team.setViewportSize({ width: 1280, height: 800 })
  await team.goto(satchel.enterUrl)
  await team.goto(`${satchel.url}/people/3`)
  await team.getByText(/Paused their mail themselves until/).waitFor()
  await team.getByText('Asked for at most one mailing in 7 days.').waitFor()
  await team.getByText('Mail paused for 4 weeks · “Pause for 4 weeks”').waitFor()
  await visitor.expectAccessible()
  await press('Send me mail again')
  await seen('Pause for 2 weeks')
  await press('Send me every letter')
  await seen('At most one letter a week')
  expect(ownLimitsOf(satchel.db, 3)).toMatchObject({ oneInDays: null })
})

test('what is about them is changed by themselves; what can’t be read loses nothing of what was written', async () => {
  await page.goto(pageOf(4))
  expect(await page.getByText('Our own notes').count()).toBe(0)
  await page.getByLabel('Town').fill('<b>Sandreach</b> "Quay"')
  await page.getByLabel('Kites').fill('7')
  await press('Save what is about you')
  await seen('Saved. It takes effect at once.')
  const values = () => valuesOf(personDetails(satchel.db, 4)!.person)
  expect(values()).toMatchObject({ town: '<b>Sandreach</b> "Quay"', kites: 7 })
  expect(await page.getByLabel('Town').inputValue()).toBe('<b>Sandreach</b> "Quay"')
  const body = new URLSearchParams({ do: 'fields', 'value.town': 'Orrin', 'value.kites': 'many' })
  const refused = await fetch(pageOf(4), { method: 'POST', body: body.toString() })
  expect(refused.status).toBe(422)
  const html = await refused.text()
  expect(html).toContain('“Kites” could not be read')
  expect(html).toContain('value="Orrin"')
  expect(values()).toMatchObject({ town: '<b>Sandreach</b> "Quay"', kites: 7 })
})

test('another address: confirmed by its own mail with a press, told to the former one, and changed back', async () => {
  const before = personDetails(satchel.db, 5)!.person.address
  await page.goto(pageOf(5))
  await page.getByLabel('New address').fill('fifth@silent.example')
  await press('Send a link there')
  await seen('Look into your mailbox')
  const { mail, link } = await confirmingMail('fifth@silent.example', 'Is this your address?')
  expect(mail.headers.get('auto-submitted')).toBe('auto-replied')
  // A scanner that follows links confirms nothing.
  await fetch(link)
  expect(personByAddress(satchel.db, 'fifth@silent.example')).toBeUndefined()
  await page.goto(link)
  await press('Yes, write to me here')
  await seen('From now on we write to fifth@silent.example')
  expect(personByAddress(satchel.db, 'fifth@silent.example')).toBe(5)
  await page.goto(link)
  await seen('This link is over')
  const back = await confirmingMail(before, 'Your address has changed')
  await page.goto(back.link)
  await press('Yes, change it back')
  await seen(`From now on we write to ${before}`)
  expect(personByAddress(satchel.db, before)).toBe(5)
})

test('everything known comes by a mail to themselves, since letters are passed on', async () => {
  const { address } = personDetails(satchel.db, 6)!.person
  const html = await (await fetch(pageOf(6))).text()
  expect(html).not.toContain('evidence')
  await page.goto(pageOf(6))
  await page
    .locator('section', { hasText: 'What we know of you' })
    .getByRole('button', { name: 'Send me the link' })
    .click()
  await seen('Look into your mailbox')
  const { link } = await confirmingMail(address, 'What Galewright Kites knows of you')
  const known = await fetch(link, { method: 'POST' })
  expect(known.headers.get('content-disposition')).toContain('attachment')
  expect(await known.json()).toMatchObject({ address, evidence: [{ list: 'Wind notes' }] })
})

test('the links in mail to somebody who was merged are theirs who they have become', async () => {
  mergePeople(satchel.db, 10, 11, Date.now())
  await page.goto(pageOf(11))
  await seen('Your lists')
  await page.goto(`${satchel.url}/u/${makeToken(key, 'leave', mailing, 11)}`)
  await press('Unsubscribe')
  await seen(/You are unsubscribed|Unsubscribed/)
  expect(state(10, 1)).toBe('unsubscribed')
})

test('one press, and somebody is on no list; another, confirmed by mail, and nothing is known of them', async () => {
  const { address } = personDetails(satchel.db, 7)!.person
  await page.goto(pageOf(7))
  await press('Unsubscribe from everything')
  await seen('Saved. It takes effect at once.')
  expect(state(7, 1)).toBe('unsubscribed')
  await page
    .locator('section', { hasText: 'Be erased' })
    .getByRole('button', { name: 'Send me the link' })
    .click()
  await seen('Look into your mailbox')
  const { link } = await confirmingMail(
    address,
    'Shall Galewright Kites erase everything about you?',
  )
  await fetch(link)
  expect(personDetails(satchel.db, 7)).not.toBeNull()
  await page.goto(link)
  await press('Erase everything')
  await seen('Everything is erased')
  expect(personDetails(satchel.db, 7)).toBeFalsy()
  expect((await fetch(pageOf(7))).status).toBe(404)
})

test('readers are spoken to in their language, also as they leave, in the words that the account chose', async () => {
  const team = visitor.page
  await team.goto(`${satchel.url}/settings/readers?language=de`)
  const field = team.getByRole('textbox', { name: 'Ihre Listen', exact: true })
  await field.fill('Was Sie {bogus} lesen')
  await field.press('Tab')
  await team.getByText(/\{bogus\} is not known here/).waitFor()
  await field.fill('Was Sie lesen')
  await field.press('Tab')
  const texts = Object.keys(readerLanguages.de).length
  await team.getByText(`${texts} texts, 1 changed`).waitFor()
  await team.frameLocator('iframe').getByText('Was Sie lesen').waitFor()
  await visitor.expectAccessible()
  changePerson(satchel.db, 8, { values: { language: 'de' } }, Date.now())
  run(
    satchel.db,
    q.insertInto('fields').values({ key: 'language', name: 'L', kind: 'text', position: 9 }),
  )
  await page.goto(pageOf(8))
  await seen('Was Sie lesen')
  expect(await page.locator('html').getAttribute('lang')).toBe('de')
  await page.goto(`${satchel.url}/u/${makeToken(key, 'leave', mailing, 8)}`)
  await press('Abmelden')
  await seen('Sie sind von Wind notes abgemeldet')
  await seen('Mögen Sie sagen, warum?')
  await press('Das war ein Versehen, Wind notes weiter schicken')
  await seen('Sie bekommen Wind notes wieder')
  const said = one(
    satchel.db,
    q
      .selectFrom('evidence')
      .innerJoin('wordings', 'wordings.id', 'wording_id')
      .select('text')
      .where('person_id', '=', 8)
      .orderBy('evidence.id', 'desc'),
  )
  expect(said!.text).toBe('Das war ein Versehen, Wind notes weiter schicken')
})

test('wrong, forged and foreign links lead nowhere and change nothing', async () => {
  const before = all(satchel.db, q.selectFrom('evidence').selectAll()).length
  const leave = makeToken(key, 'leave', mailing, 9)
  for (const token of ['x', leave, `${makeToken(key, 'reader', mailing, 9)}a`]) {
    expect((await fetch(`${satchel.url}/r/${token}`)).status).toBe(404)
    const forged = await fetch(`${satchel.url}/r/${token}`, { method: 'POST', body: 'do=leave' })
    expect(forged.status).toBe(404)
  }
  for (const secret of ['x', 'A'.repeat(32), '%00'])
    for (const method of ['GET', 'POST'])
      expect((await fetch(`${satchel.url}/r/confirm/${secret}`, { method })).status).toBe(404)
  const large = await fetch(pageOf(9), { method: 'POST', body: 'x'.repeat(70_000) })
  expect(large.status).toBe(413)
  for (const odd of ['do=', 'do=pause&weeks=99', 'do=__proto__', 'weeks=2', ''])
    expect((await fetch(pageOf(9), { method: 'POST', body: odd })).ok).toBe(true)
  expect(all(satchel.db, q.selectFrom('evidence').selectAll())).toHaveLength(before)
  expect(ownLimitsOf(satchel.db, 9)).toEqual({ pausedUntil: null, oneInDays: null })
  expect(visitor.errors.filter((error) => !error.includes('422'))).toEqual([])
})
