import { expect, test } from 'vitest'
import { createMailing } from '../database/mailings'
import { demoInBrowser } from './demo-in-browser'
import { until } from './installation'
import { finishedLetter } from './subscribers'

/** Letters tried at the practice providers, over SMTP and IMAP. */
const { satchel, visitor, page, seen } = demoInBrowser(200)
let id = 0
const section = () => page().getByRole('region', { name: 'Trial delivery' })
const rowOf = (provider: string) =>
  section().getByRole('row', { name: new RegExp(`galewright.trial@${provider}`) })
const providers = ['harbourmail', 'inkpost', 'oldmill', 'workdesk', 'veilpost']

test('a mailbox is added in Settings, taken away, and comes back; nobody is told its password', async () => {
  await page().goto(`${satchel.url}/settings#trial-mailboxes`)
  const settings = page().getByRole('region', { name: 'Trial mailboxes' })
  await settings.getByText('galewright.trial@inkpost.example').waitFor()
  await settings.getByRole('button', { name: 'Add a mailbox' }).click()
  await settings.getByRole('button', { name: 'Add it' }).click()
  await settings.getByText('Write the name of the provider’s IMAP server.').waitFor()
  await visitor.expectAccessible()
  await settings.getByLabel('Address').fill('Own@elsewhere.example')
  await settings.getByLabel('IMAP server').fill('imap.elsewhere.example')
  await settings.getByLabel('Password').fill('between us')
  await settings.getByRole('button', { name: 'Add it' }).click()
  await settings.getByText('imap.elsewhere.example:993, encrypted').waitFor()
  const told = await page().request.get(`${satchel.url}/api/trial-mailboxes`)
  expect(await told.text()).toContain('own@elsewhere.example')
  expect(await told.text()).not.toMatch(/between us|password/)
  const gone = settings.getByText('own@elsewhere.example')
  await settings.getByRole('button', { name: 'Remove own@elsewhere.example' }).click()
  await gone.waitFor({ state: 'detached' })
  await page().getByRole('button', { name: 'Undo' }).click()
  await gone.waitFor()
  await settings.getByRole('button', { name: 'Remove own@elsewhere.example' }).click()
  await gone.waitFor({ state: 'detached' })
})

test('a plain letter comes into every inbox, and each provider knows who sent it', async () => {
  const letter = finishedLetter()
  id = createMailing(satchel.db, { name: 'Force 5', listId: 1, letter }, Date.now())
  await page().goto(`${satchel.url}/mail/${id}/proof`)
  await section().getByText('Send the letter to 5 mailboxes of your own').waitFor()
  await section().getByRole('button', { name: 'Try it' }).click()
  for (const provider of providers) {
    await rowOf(provider).getByText('Inbox').waitFor()
    expect(await rowOf(provider).getByText('pass', { exact: true }).count()).toBe(3)
  }
  await visitor.expectAccessible()
})

test('a loud one goes to junk where that is minded; the proof says where and why', async () => {
  const path = `${satchel.url}/api/mailings/${id}`
  const { letter } = (await (await page().request.get(path)).json()) as {
    letter: { version: number }
  }
  const { previewText, document } = finishedLetter()
  const data = {
    ...{ previewText, document, version: letter.version },
    subject: 'ACT NOW!! YOUR LAST CHANCE',
  }
  expect((await page().request.put(`${path}/letter`, { data })).status()).toBe(200)
  await page().reload()
  await section().getByText('and changed since').waitFor()
  await section().getByRole('button', { name: 'Try again' }).click()
  await rowOf('workdesk').getByText('Junk: “Held back”').waitFor()
  await rowOf('workdesk')
    .getByText(/subject in capitals/)
    .waitFor()
  await seen('workdesk.example puts this letter into “Held back”')
  await seen(/Its filter notes: subject in capitals/)
  await visitor.expectAccessible()
})

test('a mailing says why it can’t be tried: no mailboxes, or none that open', async () => {
  await page().goto(`${satchel.url}/settings`)
  const settings = page().getByRole('region', { name: 'Trial mailboxes' })
  for (const provider of providers) {
    const name = `Remove galewright.trial@${provider}.example`
    await settings.getByRole('button', { name }).click()
    await settings.getByRole('button', { name }).waitFor({ state: 'detached' })
  }
  const refused = await page().request.post(`${satchel.url}/api/mailings/${id}/trial`)
  expect(refused.status()).toBe(409)
  const address = 'galewright.trial@inkpost.example'
  const added = await page().request.post(`${satchel.url}/api/trial-mailboxes`, {
    data: {
      ...{ address, host: '127.0.0.1', port: 1, secure: false },
      ...{ login: address, password: 'x' },
    },
  })
  expect(added.status()).toBe(200)
  await page().goto(`${satchel.url}/mail/${id}/proof`)
  await section()
    .getByRole('button', { name: /Try (it|again)/ })
    .click()
  await rowOf('inkpost')
    .getByText(/127\.0\.0\.1:1 could not be read/)
    .waitFor()
  await until(
    'the console is quiet',
    () => visitor.errors.filter((error) => !/422|409/.test(error)).length === 0,
  )
})
