import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { readForm } from '../core/sign-ups'
import { all, q } from '../database'
import { writeClock } from '../database/account'
import { addSignUp, publishSignUp, signUpById } from '../database/sign-ups'
import { visit, type Visitor } from './browser'
import { install, until, type Installation } from './installation'
import { addSubscribers } from './subscribers'

let satchel: Installation
let team: Visitor
const sendings = () => all(satchel.db, q.selectFrom('sign_up_sendings').selectAll().orderBy('id'))
const visits = () => all(satchel.db, q.selectFrom('sign_up_visits').selectAll())

function liveForm(name: string, kind: string): { id: number; key: string } {
  const form = readForm({
    ...{ kind, languages: ['en'], privacy: 'https://galewright.example/privacy' },
    sites: kind === 'hosted' ? [] : ['https://galewright.example'],
    thanks: { title: { en: 'Look into your mailbox' }, text: {} },
    confirmed: { title: { en: 'It is done' }, text: {} },
    parts: [
      { id: 'heading', kind: 'heading', text: { en: name } },
      { id: 'mail', kind: 'field', field: 'address' },
      { id: 'wind', kind: 'consent', text: { en: 'Send me Wind notes.' }, lists: [1] },
      { id: 'send', kind: 'button', label: { en: 'Send it' } },
      { id: 'from', kind: 'hidden', param: 'utm_source' },
    ],
  })!
  const id = addSignUp(satchel.db, name, form, Date.now())
  publishSignUp(satchel.db, id, 1, 'Wren', Date.now())
  return signUpById(satchel.db, id)!
}

beforeAll(async () => {
  satchel = await install()
  addSubscribers(satchel.db, 25, 'inkpost.example')
  const file = join(satchel.data, 'site-forms.json')
  Object.assign(satchel.env, { WORLD_SITE_FORMS: file, WORLD_SATCHEL: satchel.url })
  const [foot, own] = [liveForm('At the foot', 'in-page'), liveForm('Its own page', 'hosted')]
  writeFileSync(
    file,
    JSON.stringify([
      { key: foot.key, kind: 'in-page', pages: ['*'] },
      { key: own.key, kind: 'hosted', pages: [] },
    ]),
  )
  await Promise.all([satchel.start('web'), satchel.start('engine')])
  await satchel.start('world')
  team = await visit()
})
afterAll(async () => {
  await team?.close()
  await satchel?.stop()
})

test('visitors of the practice site look, sign up by its one line and confirm by mail; bots are kept away', async () => {
  const now = Date.now()
  writeClock(satchel.db, { anchorReal: now, anchorPractice: now, rate: 3600, jumpTo: null })
  await until('some look, and come by both forms', () => {
    const came = sendings()
    const forms = new Set(
      came.flatMap(({ state, sign_up_id }) => (state === 'confirmed' ? [sign_up_id] : [])),
    )
    return (
      forms.size === 2 && came.some(({ state }) => state === 'kept-away' || state === 'for-a-look')
    )
  })
  writeClock(satchel.db, {
    ...{ anchorReal: Date.now(), anchorPractice: now + (Date.now() - now) * 3600 },
    ...{ rate: 1, jumpTo: null },
  })
  expect(visits().length).toBeGreaterThan(sendings().length)
  // Told apart by where they come from, as no cookie tells them apart.
  expect(new Set(visits().map(({ visitor }) => visitor)).size).toBeGreaterThan(10)
  const confirmed = sendings().filter(({ state }) => state === 'confirmed')
  expect(confirmed.every(({ work }) => work !== null)).toBe(true)
  expect(confirmed.some(({ page }) => page?.startsWith('https://galewright.example/'))).toBe(true)
  const doubted = sendings().filter(({ doubt }) => doubt !== null)
  expect(doubted.every(({ ip }) => ip === '127.66.6.6')).toBe(true)
  expect(doubted.every(({ person_id }) => person_id === null)).toBe(true)
})

test('the site can be looked at, and signed up on, in a browser', async () => {
  const { page } = team
  await page.goto(`${satchel.worldUrl}/shop/workshop`)
  await page.getByRole('heading', { name: 'Workshop places' }).waitFor()
  await page.getByRole('heading', { name: 'At the foot' }).waitFor()
  await page.getByLabel('E-mail address').fill('mira@oldmill.example')
  await page.getByLabel('Send me Wind notes.').check()
  await new Promise((done) => setTimeout(done, 2_500))
  await page.getByRole('button', { name: 'Send it' }).click()
  await page.getByRole('heading', { name: 'Look into your mailbox' }).waitFor()
  const [mine] = sendings().filter(({ normal }) => normal === 'mira@oldmill.example')
  expect(mine).toMatchObject({ doubt: null, page: `${satchel.worldUrl}/shop/workshop` })
  await page.getByRole('link', { name: 'Twelve beaches' }).click()
  await page.waitForURL('**/shop/beaches')
  await team.expectAccessible()
})
