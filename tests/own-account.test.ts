import { afterAll, beforeAll, expect, test } from 'vitest'
import { one, q } from '../database'
import { visit, type Visitor } from './browser'
import { install, setupCode, type Installation } from './installation'

/** The first visit to an installation of one's own: no demo, no mail server. */
let satchel: Installation
let visitor: Visitor
const page = () => visitor.page

beforeAll(async () => {
  satchel = await install({ empty: true, env: { SATCHEL_SMTP_URL: '' } })
  await Promise.all([satchel.start('web'), satchel.start('engine')])
  visitor = await visit()
})
afterAll(async () => {
  await visitor?.close()
  await satchel?.stop()
})

test('the first visit makes the owner’s account, and says what is missing', async () => {
  await page().goto(satchel.url)
  await page().waitForURL(/welcome/)
  await visitor.expectAccessible()
  await page().getByLabel('Your name').fill('Wren Galewright')
  await page().getByLabel('Your e-mail address').fill('wren@galewright.example')
  await page().getByLabel('Password').fill('too short')
  await page().getByLabel('What your readers know you by').fill('Galewright Kites')
  await page().locator('#zone').fill('Europe/London')
  await page().locator('#zone').press('Tab')
  await page().getByRole('button', { name: 'Make the account' }).click()
  await page().getByText('At least 12 characters.').waitFor()
  await page().getByLabel('Password').fill('a long enough password')
  await page().getByLabel('Setup code').fill('1111-2222')
  await page().getByRole('button', { name: 'Make the account' }).click()
  await page().getByText('This is not the setup code.').waitFor()
  expect(visitor.errors.splice(0)).toEqual([expect.stringContaining('422')])
  await page().getByLabel('Setup code').fill(setupCode.toUpperCase())
  await page().getByRole('button', { name: 'Make the account' }).click()
  await page().getByText('No mail server is set').first().waitFor()
  await page().getByText('Nothing waits.').waitFor()
  await visitor.expectAccessible()
  const user = one(satchel.db, q.selectFrom('users').selectAll())!
  expect(user).toMatchObject({ name: 'Wren Galewright', role: 'owner' })
  expect(user.password_hash).toMatch(/^\$scrypt\$/)
})

test('empty screens say what will be there and offer the first step', async () => {
  for (const [path, words] of [
    ['/people', 'Nobody is here yet'],
    ['/mail', 'No letters yet'],
    ['/results', 'No results yet'],
    ['/standing', 'Nothing was sent in this time.'],
    ['/sign-ups', 'No sign-ups yet'],
    ['/sequences', 'Begin one'],
    ['/settings', 'DKIM'],
  ]) {
    await page().goto(`${satchel.url}${path}`)
    await page().getByText(words!).first().waitFor()
    await visitor.expectAccessible()
  }
})

test('a program gets a token that is shown once, and can be revoked', async () => {
  await page().goto(`${satchel.url}/settings`)
  await page().getByLabel('Which program it is for').fill('Shop')
  await page().getByRole('button', { name: 'Make a token' }).click()
  const token = await page().locator('code', { hasText: 'st_' }).innerText()
  const send = () =>
    fetch(`${satchel.url}/api/v1/people`, {
      method: 'POST',
      headers: { authorization: `Bearer ${token}` },
      body: JSON.stringify([{ address: 'shop@inkpost.example' }]),
    })
  expect((await send()).status).toBe(200)
  await visitor.expectAccessible()
  await page().reload()
  await page()
    .getByText(/last used/)
    .waitFor()
  expect(await page().getByText(token).count()).toBe(0)
  await page().getByRole('button', { name: 'Revoke' }).click()
  await page().getByText('The token is revoked.').waitFor()
  expect((await send()).status).toBe(401)
})

test('nothing can be sent while no mail server is set', async () => {
  await page().goto(`${satchel.url}/mail`)
  await page().getByRole('button', { name: 'Write a letter' }).first().click()
  await page()
    .getByRole('button', { name: /The usual start/ })
    .click()
  await page().waitForURL(/letter/)
  await page()
    .getByRole('link', { name: /Dispatch/ })
    .click()
  await page().getByText('No mail server is set, so nothing can go out.').waitFor()
  expect(
    await page()
      .getByRole('button', { name: /^Send to/ })
      .isDisabled(),
  ).toBe(true)
})

test('out and in again; a wrong password and a second owner are refused', async () => {
  await page().getByRole('button', { name: 'Galewright Kites' }).click()
  await page().getByRole('menuitem', { name: 'Sign out' }).click()
  await page().waitForURL(/sign-in/)
  // What was under way when one signed out may be refused.
  expect(visitor.errors.filter((error) => !error.includes('401'))).toEqual([])
  await page().getByLabel('E-mail address').fill('wren@galewright.example')
  await page().getByLabel('Password').fill('not the password')
  await page().getByRole('button', { name: 'Sign in' }).click()
  await page().getByText('This address and password do not belong together.').waitFor()
  await visitor.expectAccessible()
  await page().getByLabel('Password').fill('a long enough password')
  await page().getByRole('button', { name: 'Sign in' }).click()
  await page().getByText('Waiting for you').waitFor()
  const second = await fetch(`${satchel.url}/api/owner`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'sec-fetch-site': 'same-origin' },
    body: JSON.stringify({
      name: 'X',
      address: 'x@y.example',
      password: 'another long password',
      code: setupCode,
      accountName: 'Y',
      zone: 'UTC',
    }),
  })
  expect(second.status).toBe(409)
})
