import { afterAll, beforeAll, expect, test } from 'vitest'
import { hashPassword } from '../cases/team'
import { totpCode } from '../core/sign-in'
import { HOUR } from '../core/time'
import { q, run } from '../database'
import { createMailing } from '../database/mailings'
import { addUser, usersOf } from '../database/account'
import { visit, type Visitor } from './browser'
import { install, type Installation } from './installation'
import { addSubscribers, finishedLetter } from './subscribers'

/** Those who work here, as they see it themselves. */
let satchel: Installation
let owner: Visitor
let other: Visitor
const password = 'a fair wind for kites'

beforeAll(async () => {
  satchel = await install()
  addSubscribers(satchel.db, 20)
  createMailing(satchel.db, { name: 'Wind', listId: 1, letter: finishedLetter() }, Date.now())
  const passwordHash = await hashPassword(password)
  run(satchel.db, q.updateTable('users').set({ password_hash: passwordHash }))
  for (const role of ['viewer', 'writer'] as const)
    addUser(
      satchel.db,
      { name: `Vic ${role}`, address: `${role}@galewright.example`, passwordHash, role },
      0,
    )
  await satchel.start('web')
  ;[owner, other] = await Promise.all([visit(), visit()])
  await owner.page.goto(satchel.enterUrl)
})
afterAll(async () => {
  await Promise.all([owner?.close(), other?.close()])
  await satchel?.stop()
})
const go = ({ page }: Visitor, path: string) => page.goto(satchel.url + path)

async function signIn({ page }: Visitor, address: string, word = password) {
  await page.goto(`${satchel.url}/sign-in`)
  await page.getByLabel('E-mail address').fill(address)
  await page.getByLabel('Password').fill(word)
  await page.getByRole('button', { name: 'Sign in' }).click()
}

test('what a viewer may not is not offered, and everything can be read', async () => {
  await signIn(other, 'viewer@galewright.example')
  const { page } = other
  await page.getByText('Waiting for you').waitFor()
  await go(other, '/people')
  await page.getByText('reader0@harbourmail.example').waitFor()
  for (const name of ['Import people', 'Add one person', 'Export people…'])
    expect(await page.getByText(name, { exact: true }).filter({ visible: true }).count()).toBe(0)
  await go(other, '/mail/1/letter')
  await page.getByTitle('The letter as it is read').waitFor()
  expect(await page.getByRole('button', { name: 'Undo' }).count()).toBe(0)
  await other.expectAccessible()
  await go(other, '/mail/1/dispatch')
  await page.getByText('goes to').first().waitFor()
  expect(
    await page
      .getByRole('button', { name: /^Send to/ })
      .filter({ visible: true })
      .count(),
  ).toBe(0)
  await go(other, '/settings/team')
  await page.getByText('Vic writer').waitFor()
  expect(await page.getByRole('button', { name: 'Let somebody in…' }).count()).toBe(0)
  expect(await page.getByRole('link', { name: 'Audit log' }).count()).toBe(0)
  await other.expectAccessible()
})

test('an owner changes a role, and what is offered changes with it', async () => {
  await go(owner, '/settings/team')
  await owner.page.getByLabel('Role of Vic viewer').selectOption('editor')
  await owner.page.getByText('Vic viewer is an editor now.').waitFor()
  await owner.expectAccessible()
  await go(other, '/people')
  await other.page.getByText('Import people', { exact: true }).first().waitFor()
})

test('a second factor is set by a code of it, and asked for when one signs in', async () => {
  const { page } = other
  await go(other, '/settings/me')
  await page.getByRole('button', { name: 'Set a second factor…' }).click()
  const secret = await page.locator('code').innerText()
  await page.getByLabel('The code that it shows').fill('000000')
  await page.getByRole('button', { name: 'Set it' }).click()
  await page.getByText('This code does not hold.').waitFor()
  other.errors.length = 0
  await page.getByLabel('The code that it shows').fill(totpCode(secret, Date.now()))
  await page.getByRole('button', { name: 'Set it' }).click()
  await page.getByText('Keep these recovery codes').waitFor()
  const [recovery] = await page.locator('section li').allInnerTexts()
  await other.expectAccessible()
  await page.getByRole('button', { name: 'Galewright Kites' }).click()
  await page.getByRole('menuitem', { name: 'Sign out' }).click()
  await page.waitForURL(/sign-in/)
  await signIn(other, 'viewer@galewright.example')
  await page.getByLabel('Code of your second factor').fill('123')
  await other.expectAccessible()
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.getByText('This code does not hold, or was used already.').waitFor()
  await page.getByLabel('Code of your second factor').fill(recovery!)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.getByText('Waiting for you').waitFor()
  other.errors.length = 0
})

test('somebody gets a link for a new password, sets it, and comes in by it', async () => {
  await go(owner, '/settings/team')
  await owner.page.getByRole('button', { name: 'Link for a new password for Vic writer' }).click()
  const link = await owner.page.locator('code').innerText()
  const { page } = other
  await page.context().clearCookies()
  await page.goto(link)
  await page.getByLabel('New password').fill('too short')
  await page.getByRole('button', { name: 'Set the password' }).click()
  await page.getByText('At least 12 characters.').last().waitFor()
  await other.expectAccessible()
  await page.getByLabel('New password').fill('quite another fair wind')
  await page.getByRole('button', { name: 'Set the password' }).click()
  await page.getByRole('link', { name: 'Sign in as writer@galewright.example' }).click()
  await signIn(other, 'writer@galewright.example', 'quite another fair wind')
  await page.getByText('Waiting for you').waitFor()
})

test('what is sensitive asks for the password, and goes on from there', async () => {
  const { page } = owner
  run(satchel.db, q.updateTable('sessions').set({ confirmed_at: Date.now() - HOUR }))
  await go(owner, '/settings/team')
  await page.getByRole('button', { name: 'Remove Vic writer' }).click()
  await page.getByRole('button', { name: 'Remove', exact: true }).click()
  const asked = page.getByRole('dialog', { name: 'Give your password again' })
  await asked.getByLabel('Your password').fill('not it')
  await asked.getByRole('button', { name: 'Go on' }).click()
  await asked.getByText('This is not your password.').waitFor()
  await owner.expectAccessible()
  await asked.getByLabel('Your password').fill(password)
  await asked.getByRole('button', { name: 'Go on' }).click()
  await page.getByText('Vic writer can’t sign in any more.').waitFor()
  expect(usersOf(satchel.db).map(({ name }) => name)).not.toContain('Vic writer')
  owner.errors.length = 0
  // Whoever was removed is out at once, also on a page that was open.
  await other.page.getByRole('link', { name: 'People', exact: true }).first().click()
  await other.page.waitForURL(/sign-in\?to=%2F|sign-in\?to=\//)
  await other.page.getByLabel('E-mail address').waitFor()
})

test('the audit log says who did what', async () => {
  const { page } = owner
  await go(owner, '/settings/audit')
  const row = page.getByRole('row', { name: /removed a user/ })
  await row.getByText('Wren').waitFor()
  await page
    .getByRole('row', { name: /Vic viewer set a second factor/ })
    .first()
    .waitFor()
  await owner.expectAccessible()
  await go(owner, '/settings/kept')
  await page.getByText('Bounces, complaints, replies and whatever else came back').waitFor()
  await owner.expectAccessible()
  expect(owner.errors).toEqual([])
})
