import ICAL from 'ical.js'
import { expect, test } from 'vitest'
import type { Route } from 'playwright-core'
import { addDays, DAY } from '../core/time'
import { one, q } from '../database'
import { sheetDays } from '../cases/today'
import { loadByDay, sequenceDays } from '../database/calendar'
import { mailingById } from '../database/mailings'
import { demoInBrowser } from './demo-in-browser'
import { until } from './installation'

const { satchel, visitor, page, seen } = demoInBrowser(400)
const zone = 'Europe/London'
const scheduled = (name: string) =>
  one(satchel.db, q.selectFrom('mailings').selectAll().where('name', '=', name))!

test('what goes out stands on its day, with how many it brings mail to', async () => {
  await page().goto(`${satchel.url}/mail/calendar`)
  await seen('Wind notes 47')
  const at = scheduled('Wind notes 47').scheduled_at!
  const day = new Date(at).toLocaleDateString('en-GB', {
    weekday: 'long',
    day: 'numeric',
    month: 'long',
  })
  const cell = page().getByRole('region', { name: day.replace(',', '') })
  await cell.getByText('Wind notes 47').waitFor()
  const iso = new Date(at).toISOString().slice(0, 10)
  const [load] = loadByDay(satchel.db, iso, iso, Date.now())
  await cell.getByText(`${load!.people} people`).waitFor()
  // Those who are inside a sequence get its mail on days of their own.
  await page()
    .getByRole('link', { name: /^Sequences: \d/ })
    .first()
    .waitFor()
  await visitor.expectAccessible()
})

test('dragged to another day it goes out then, at the same time of day; undone, as before; and by the keys', async () => {
  const { id, scheduled_at: before } = scheduled('Repair day')
  const time = () => mailingById(satchel.db, id)!.scheduled_at!
  const day = (at: number) =>
    page().getByRole('region', {
      name: new Date(at)
        .toLocaleDateString('en-GB', { weekday: 'long', day: 'numeric', month: 'long' })
        .replace(',', ''),
    })
  await day(before!)
    .getByText('Repair day')
    .dragTo(day(addDays(before!, 2, zone)))
  await until('it is two days later', () => time() === addDays(before!, 2, zone))
  await page().getByRole('button', { name: 'Undo' }).click()
  await until('it is as before', () => time() === before)
  const focused = () =>
    page().evaluate(() => document.activeElement?.closest('[data-mailing]')?.textContent ?? '')
  // However late the server answers: each key goes on from where the last one moved it to.
  const late = async (route: Route) => {
    await new Promise((go) => setTimeout(go, 700))
    await route.continue().catch(() => {})
  }
  await page().route(/\/api\/(calendar|mailings\/\d+\/move)/, late)
  await day(before!)
    .getByRole('link', { name: /Repair day/ })
    .focus()
  await page().keyboard.press('Alt+ArrowDown')
  await page().keyboard.press('Alt+ArrowRight')
  await until('it is eight days later', () => time() === addDays(before!, 8, zone))
  await day(addDays(before!, 8, zone))
    .getByText('Repair day')
    .waitFor()
  expect(await focused()).toContain('Repair day')
  await page().keyboard.press('Alt+ArrowLeft')
  await page().keyboard.press('Alt+ArrowUp')
  await until('it is as before again', () => time() === before)
  await page().unroute(/\/api\/(calendar|mailings\/\d+\/move)/, late)
})

test('what is past can’t be gone back to: it says so, and nothing changes', async () => {
  const { id, scheduled_at } = scheduled('Repair day')
  const refused = await page().request.post(`${satchel.url}/api/mailings/${id}/move`, {
    data: { wish: '2020-02-03T09:00' },
  })
  expect(refused.status()).toBe(409)
  expect(mailingById(satchel.db, id)!.scheduled_at).toBe(scheduled_at)
})

test('other calendars read it by its address, and by no other', async () => {
  const href = await page().getByRole('link', { name: 'As iCalendar' }).getAttribute('href')
  const answer = await fetch(href!)
  expect(answer.headers.get('content-type')).toMatch(/^text\/calendar/)
  const calendar = new ICAL.Component(ICAL.parse(await answer.text()))
  const events = calendar.getAllSubcomponents('vevent').map((part) => new ICAL.Event(part))
  const wanted = scheduled('Wind notes 47')
  const found = events.find(({ summary }) => summary === 'Wind notes 47')!
  expect(found.startDate.toUnixTime() * 1000).toBe(Math.floor(wanted.scheduled_at! / 1000) * 1000)
  // Another sign in its midst; the last might stand for fewer bits, or be the same.
  const forged = href!.replace(/.(?=.{10}\.ics$)/, (sign) => (sign === 'a' ? 'b' : 'a'))
  expect((await fetch(forged)).status).toBe(404)
})

test('the domain’s records are looked up, and stand in Standing', async () => {
  await page().goto(`${satchel.url}/standing`)
  const section = page().getByRole('region', { name: 'Authentication' })
  await section.getByText('The key that signs your letters is there.').waitFor()
  expect(await section.getByText('Good', { exact: true }).count()).toBe(3)
  await section.getByRole('button', { name: 'Ask again' }).click()
  await section.getByRole('button', { name: 'Ask again' }).waitFor()
  await visitor.expectAccessible()
})

test('a held mailing is mended by its marks’ buttons, and released', async () => {
  const { id } = scheduled('Gale season sale')
  await until('its proof holds it', () => mailingById(satchel.db, id)!.state === 'held')
  await page().goto(`${satchel.url}/mail/${id}/proof`)
  await seen(/people would read/)
  await page().getByRole('link', { name: 'Read it as they do' }).first().click()
  await page().waitForURL(/renderings\?lacks=first_name/)
  await page().goBack()
  await page().getByRole('button', { name: 'Say “there” to them' }).click()
  await page()
    .getByText(/people would read/)
    .waitFor({ state: 'detached' })
  await page().getByRole('button', { name: 'Undo' }).last().click()
  await seen(/people would read/)
  await page().getByRole('button', { name: 'Say “there” to them' }).click()
  await page()
    .getByText(/people would read/)
    .waitFor({ state: 'detached' })
  await page().getByRole('button', { name: 'Show it' }).first().click()
  await page().getByLabel('Leads to').fill('https://galewright.example/gale-season')
  await page().getByLabel('Leads to').press('Tab')
  await page().getByText('Saved', { exact: true }).waitFor()
  await page().goto(`${satchel.url}/mail/${id}/proof`)
  await seen('It was blocked, and can go now')
  await page().getByRole('link', { name: 'Open dispatch' }).click()
  await page()
    .getByRole('button', { name: /^Send to/ })
    .click()
  await until('it goes out', () => mailingById(satchel.db, id)!.started_at !== null)
})

test('the browser’s console said no error', () => expect(visitor.errors).toEqual([]))

test('today’s sheet has a line for each sequence, with its mail by days, and shows nothing before it is counted', async () => {
  let letGo = () => {}
  const held = new Promise<void>((go) => (letGo = go))
  await page().route('**/api/today/sequences', async (route) => {
    await held
    await route.continue()
  })
  await page().goto(satchel.url)
  const line = page().locator('[data-sequence]').filter({ hasText: 'First breeze' })
  await line.getByText('counting…').waitFor()
  expect(await line.locator('[title]').count()).toBe(1)
  letGo()
  const cells = line.locator('[title*=" to come"]')
  await cells.first().waitFor()
  await page().unroute('**/api/today/sequences')

  // Days of a sheet that began on another day are not shown on this one.
  await page().route('**/api/today/sequences', async (route) => {
    const answer = await route.fetch()
    const days = (await answer.json()) as { from: number }[]
    await route.fulfill({
      response: answer,
      json: days.map((of) => ({ ...of, from: of.from - DAY })),
    })
  })
  const answered = page().waitForResponse('**/api/today/sequences')
  await page().reload()
  await answered
  await line.getByText('counting…').waitFor()
  expect(await cells.count()).toBe(0)
  await page().unrouteAll({ behavior: 'wait' })
  await page().reload()
  const { id } = one(
    satchel.db,
    q.selectFrom('sequences').select('id').where('name', '=', 'First breeze'),
  )!
  const link = line.getByRole('link', { name: /First breeze/ })
  // What is due meanwhile goes out, and is counted as sent.
  await until('its sums are those of the database', async () => {
    const [of] = sequenceDays(satchel.db, [id], sheetDays(Date.now(), zone), Date.now())
    const sum = (from: readonly number[]) => from.reduce((all, one) => all + one, 0)
    const told = `${sum(of!.sent)} mails sent, ${sum(of!.coming)} to come`
    return sum(of!.sent) > 0 && (await link.innerText()).includes(told)
  })
  await visitor.expectAccessible()
  await link.click()
  await page().waitForURL(new RegExp(`/sequences/${id}.view=results`))
})
