import { expect, test } from 'vitest'
import type { Route } from 'playwright-core'
import { parseRule } from '../core/segments'
import { all, one, q, run } from '../database'
import { clockOf, readAccount, saveLetterhead, updateAccount } from '../database/account'
import { ownFields, readLists, tagsWithCounts } from '../database/people'
import { createMailing, mailingById, updateMailing, planOf } from '../database/mailings'
import { letterOf, changeStamp, readStamps } from '../database/letters'
import { addSegment, countMembers, readCatalog, segmentById } from '../database/segments'
import { addSequence, sequenceById } from '../database/sequences'
import { plainPlan } from '../core/dispatch'
import { demoInBrowser } from './demo-in-browser'
import { until } from './installation'
import { finishedLetter } from './subscribers'

/** What one sees is what happens, also where answers come late, in another order, or not at all. */
const { satchel, visitor, page, seen } = demoInBrowser(300)
const listId = () =>
  one(satchel.db, q.selectFrom('lists').select('id').where('name', '=', 'Wind notes'))!.id
const draft = (name: string) =>
  createMailing(satchel.db, { name, listId: listId(), letter: finishedLetter(name) }, Date.now())
const plan = (id: number) => planOf(mailingById(satchel.db, id)!)
const send = () => page().getByRole('button', { name: /^Send/ })
const mailed = (id: number) =>
  all(satchel.db, q.selectFrom('recipients').select('person_id').where('mailing_id', '=', id))
    .length
/** Holds what goes to an address until it is let go. */
async function holdBack(url: RegExp, method: string) {
  const held: (() => Promise<void>)[] = []
  let open = false
  const handler = async (route: Route) => {
    if (route.request().method() !== method || open) return route.continue()
    await new Promise<void>((go) => held.push(() => route.continue().then(go, go)))
  }
  await page().route(url, handler)
  return {
    waiting: () => held.length,
    async letGo() {
      open = true
      for (const go of held.splice(0)) await go()
      await page().unroute(url, handler)
    },
  }
}

/** What one made and what the other made stand side by side. */
async function bothVersions(mine: string, theirs: string) {
  const both = page().getByRole('alert', { name: 'Two versions' })
  await both.getByText(mine).first().waitFor()
  await both.getByText(theirs).first().waitFor()
}
const somebodyElse = { id: 1, name: 'Piet' }
const firstTag = () =>
  one(
    satchel.db,
    q
      .selectFrom('tags')
      .select('id')
      .orderBy((eb) => eb.fn('lower', ['name'])),
  )!.id
const firstField = () => ownFields(satchel.db)[0]!.key

test('before the plan is known nothing can be chosen or sent; what is chosen then is what goes out', async () => {
  const id = draft('Late plan')
  const asking = await holdBack(/\/api\/mailings\/\d+\/plan$/, 'GET')
  await page().goto(`${satchel.url}/mail/${id}/dispatch`)
  await seen('Asking how it is to go out')
  expect(await page().getByText('The keenest first').count()).toBe(0)
  expect(await send().isDisabled()).toBe(true)
  await asking.letGo()
  const saving = await holdBack(/\/api\/mailings\/\d+\/plan$/, 'PUT')
  await page().getByText('The keenest first').click()
  // A second choice while the first is on its way.
  await page().getByRole('button', { name: 'the sender’s name' }).click()
  await seen('Saving what you chose')
  expect(await send().isDisabled()).toBe(true)
  expect(
    await page()
      .getByRole('radio', { name: /The keenest first/ })
      .isChecked(),
  ).toBe(true)
  await saving.letGo()
  await until(
    'both are saved',
    () => plan(id).pace === 'widening' && plan(id).test?.of === 'sender',
  )
  await page().getByLabel('Sender’s name of variant B').fill('Wren at Galewright')
  await page().getByLabel('Sender’s name of variant B').press('Tab')
  await seen(/the keenest first, each tier watched for 60 minutes, .*trying the sender’s name/)
  await visitor.expectAccessible()
  const words = await send().innerText()
  await send().click()
  await until('it begins', () => mailingById(satchel.db, id)!.started_at !== null)
  expect(words).toMatch(/^Send to \d+ people$/)
  expect(plan(id).pace).toBe('widening')
})

test('a choice that can’t be saved stays, is said beside it, and holds the mailing until it is saved', async () => {
  const id = draft('Broken line')
  await page().goto(`${satchel.url}/mail/${id}/dispatch`)
  await seen(/goes to/)
  const url = /\/api\/mailings\/\d+\/plan$/
  const breaks = (route: Route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue()
  await page().route(url, breaks)
  await page().getByText('Each at their best hour').click()
  await seen(/Not saved\. Satchel does not answer/)
  expect(await send().isDisabled()).toBe(true)
  expect(
    await page()
      .getByRole('radio', { name: /best hour/ })
      .isChecked(),
  ).toBe(true)
  expect(plan(id).pace).toBe('at-once')
  await page().unroute(url, breaks)
  // It is tried again by itself, too, which may be faster than the button.
  await page()
    .getByRole('button', { name: 'Try again' })
    .click({ timeout: 1_000 })
    .catch(() => {})
  await until('it is saved', () => plan(id).pace === 'best-hour')
  await seen(/each at their best hour/)
  await until('it can be sent', () => send().isEnabled())
  visitor.errors.splice(0) // the broken line stands in the console, as it should
})

test('what changed since it was shown is not sent, and it says what changed', async () => {
  const id = draft('Changed meanwhile')
  await page().goto(`${satchel.url}/mail/${id}/dispatch`)
  await until('it can be sent', () => send().isEnabled())
  const asking = await holdBack(/\/happening/, 'GET')
  updateMailing(satchel.db, id, { plan: JSON.stringify({ ...plainPlan, holdout: 0.2 }) })
  await page().evaluate(() => {
    const button = [...document.querySelectorAll('button')].find((one) =>
      /^\s*Send to/.test(one.textContent),
    )!
    button.disabled = false
    button.click()
  })
  // Either the page knows already that it has to ask again, or the server refuses: nothing goes out.
  await Promise.race([
    seen(/Nothing was sent: .*how it is to go out/),
    seen('Asking what will happen'),
  ])
  await asking.letGo()
  await seen(/in the control group/)
  expect(mailed(id)).toBe(0)
  expect(mailingById(satchel.db, id)!.state).toBe('draft')
  const { mailings } = { mailings: mailingById(satchel.db, id)! }
  const late = await page().request.post(`${satchel.url}/api/mailings/${mailings.id}/dispatch`, {
    data: {
      at: null,
      seen: { letter: 'x', plan: 'x', list: 'x', rule: 'x', sender: 'x', when: '', people: 1 },
    },
  })
  expect(late.status()).toBe(412)
  expect(((await late.json()) as { message: string }).message).toMatch(
    /Nothing was sent: the letter, how it is to go out, the list, who is to get it, the sender, how many get it/,
  )
  visitor.errors.splice(0)
})

test('the proof that has not answered is unknown, and nothing is sent before it has', async () => {
  const id = draft('Late proof')
  const asking = await holdBack(/\/api\/mailings\/\d+\/proof$/, 'GET')
  await page().goto(`${satchel.url}/mail/${id}/proof`)
  await seen('The proof is being made')
  expect(await page().getByText('Nothing blocks it').count()).toBe(0)
  const stages = page().getByRole('navigation', { name: 'Stages' })
  await stages.getByText('not known yet').waitFor()
  await visitor.expectAccessible()
  await page().goto(`${satchel.url}/mail/${id}/dispatch`)
  await seen('The proof has not answered yet.')
  expect(await send().isDisabled()).toBe(true)
  await asking.letGo()
  await seen('Nothing blocks it')
  await until('it can be sent', () => send().isEnabled())
})

test('for some seconds it can be called back with nothing gone out', async () => {
  updateAccount(satchel.db, { callback_seconds: 600 })
  const id = draft('Called back')
  await page().goto(`${satchel.url}/mail/${id}/dispatch`)
  await until('it can be sent', () => send().isEnabled())
  await send().click()
  await seen('Nothing has gone out. You can call it back for')
  await visitor.expectAccessible()
  expect(mailingById(satchel.db, id)).toMatchObject({ state: 'scheduled', started_at: null })
  await page().getByRole('button', { name: 'Call it back' }).click()
  await until('it is a draft', () => mailingById(satchel.db, id)!.state === 'draft')
  expect(mailed(id)).toBe(0)
  updateAccount(satchel.db, { callback_seconds: 0 })
})

test('Tab past the time keeps Now', async () => {
  const id = draft('Keys')
  await page().goto(`${satchel.url}/mail/${id}/dispatch`)
  const now = page().getByRole('radio', { name: 'Now', exact: true })
  await now.focus()
  for (let n = 0; n < 8; n++) await page().keyboard.press('Tab')
  expect(await now.isChecked()).toBe(true)
  await page().getByLabel('Time', { exact: true }).fill('2035-06-01T09:00')
  expect(await now.isChecked()).toBe(false)
})

test('two who change one plan see both, and one is chosen', async () => {
  const id = draft('Two at once')
  await page().goto(`${satchel.url}/mail/${id}/dispatch`)
  await page().getByText('The keenest first').waitFor()
  const saving = await holdBack(/\/api\/mailings\/\d+\/plan$/, 'PUT')
  await page().getByText('The keenest first').click()
  updateMailing(satchel.db, id, {
    plan: JSON.stringify({ ...plainPlan, pace: 'best-hour', holdout: 0.1 }),
  })
  await saving.letGo()
  const both = page().getByRole('alert', { name: 'Two versions' })
  await both.getByText('Each at their best hour').waitFor()
  await both.getByText('The keenest first').waitFor()
  await visitor.expectAccessible()
  expect(await send().isDisabled()).toBe(true)
  await both.getByRole('button', { name: 'Keep yours' }).click()
  // What only the other changed stays theirs.
  await until(
    'mine is saved over theirs',
    () => plan(id).pace === 'widening' && plan(id).holdout === 0.1,
  )
  // Whoever had saved sees it when somebody changes the same afterwards.
  updateMailing(satchel.db, id, { plan: JSON.stringify({ ...plan(id), pace: 'at-once' }) })
  await page().getByText('Somebody else changed what you had set.').waitFor()
  await page().getByRole('button', { name: 'Put yours back' }).click()
  await until('it is back', () => plan(id).pace === 'widening')
  visitor.errors.splice(0) // what was refused stands in the console
})

test('a sequence is not started while a change of it is unsaved', async () => {
  const id = addSequence(satchel.db, 'Slow lines', listId(), Date.now())
  await page().goto(`${satchel.url}/sequences/${id}`)
  const saving = await holdBack(/\/api\/sequences\/\d+$/, 'PUT')
  await page().getByLabel('Name of the sequence').fill('Slower lines')
  await page().getByLabel('Name of the sequence').press('Tab')
  await until('it is on its way', () => saving.waiting() === 1)
  expect(await page().getByRole('button', { name: 'Start', exact: true }).isDisabled()).toBe(true)
  const early = await page().request.post(`${satchel.url}/api/sequences/${id}/start`, {
    data: { revision: 99 },
  })
  expect(early.status()).toBe(412)
  await saving.letGo()
  await until('it is saved', () => sequenceById(satchel.db, id)!.name === 'Slower lines')
})

test('an edited segment that is left is there again as it was left', async () => {
  const rule = { kind: 'all' as const, of: [] }
  const id = addSegment(satchel.db, 'Harbour people', rule, Date.now())
  await page().goto(`${satchel.url}/people/segments/${id}`)
  await page().getByLabel('Name of the segment').fill('Harbour folk')
  await seen('Not saved yet.')
  await page().getByRole('link', { name: 'Mail', exact: true }).first().click()
  await page().waitForURL(/\/mail/)
  await page().goBack()
  await until(
    'the draft is there',
    async () => (await page().getByLabel('Name of the segment').inputValue()) === 'Harbour folk',
  )
  expect(segmentById(satchel.db, id)!.name).toBe('Harbour people')
  run(
    satchel.db,
    q.updateTable('segments').set({ name: 'Harbour crowd', version: 2 }).where('id', '=', id),
  )
  await page().getByRole('button', { name: 'Save changes' }).click()
  const both = page().getByRole('alert', { name: 'Two versions' })
  await both.getByText('Harbour crowd').waitFor()
  await both.getByRole('button', { name: 'Keep yours' }).click()
  await page().getByRole('button', { name: 'Save changes' }).click()
  await until('it is saved', () => segmentById(satchel.db, id)!.name === 'Harbour folk')
  visitor.errors.splice(0)
})

test('the settings of the account are a draft until they are saved, and two who change them see both', async () => {
  await page().goto(`${satchel.url}/settings`)
  await page().getByLabel('Sender’s name').fill('Wren')
  await page().getByRole('link', { name: 'Letterhead' }).click()
  await page().waitForURL(/letterhead/)
  await page().goBack()
  await seen('What you changed is kept here until you save it.')
  expect(await page().getByLabel('Sender’s name').inputValue()).toBe('Wren')
  const saving = await holdBack(/\/api\/account$/, 'PUT')
  await page().getByRole('button', { name: 'Save', exact: true }).click()
  await until('it is on its way', () => saving.waiting() === 1)
  updateAccount(satchel.db, { sender_name: 'Piet', cap_days: 9 })
  await saving.letGo()
  await bothVersions('Wren', 'Piet')
  await visitor.expectAccessible()
  await page().getByRole('button', { name: 'Keep yours' }).click()
  await page().getByRole('button', { name: 'Save', exact: true }).click()
  await until('mine is saved, and what only the other changed', () => {
    const { sender_name, cap_days } = readAccount(satchel.db)!
    return sender_name === 'Wren' && cap_days === 9
  })
  visitor.errors.splice(0)
})

test.each([
  {
    of: 'list',
    page: 'lists',
    field: 'Called here',
    change: () => run(satchel.db, q.updateTable('lists').set({ name: 'Gale notes' })),
    is: () => readLists(satchel.db)[0]!.name,
  },
  {
    of: 'tag',
    page: 'tags',
    field: /^Name of /,
    change: () =>
      run(
        satchel.db,
        q.updateTable('tags').set({ name: 'Gale notes' }).where('id', '=', firstTag()),
      ),
    is: () => tagsWithCounts(satchel.db).find(({ id }) => id === firstTag())!.name,
  },
  {
    of: 'field',
    page: 'fields',
    field: /^Name of /,
    change: () =>
      run(
        satchel.db,
        q.updateTable('fields').set({ name: 'Gale notes' }).where('key', '=', firstField()),
      ),
    is: () => ownFields(satchel.db)[0]!.name,
  },
])(
  'two who rename one $of see both, and one is chosen',
  async ({ of, page: tab, field, change, is }) => {
    const before = is()
    await page().goto(`${satchel.url}/people/vocabulary?part=${tab}`)
    const saving = await holdBack(new RegExp(`/api/${of}s/[^/]+$`), 'PUT')
    const input = page().getByRole('textbox', { name: field }).first()
    await input.fill('Breeze notes')
    await input.press('Tab')
    await until('it is on its way', () => saving.waiting() === 1)
    change()
    await saving.letGo()
    await bothVersions('Breeze notes', 'Gale notes')
    await page().getByRole('button', { name: 'Take theirs' }).click()
    await until('theirs is shown', async () => (await input.inputValue()) === 'Gale notes')
    expect(is()).toBe('Gale notes')
    await input.fill(before)
    await input.press('Tab')
    await until('it can be changed again', () => is() === before)
    visitor.errors.splice(0)
  },
)

test('two who change one letterhead see both, and one is chosen', async () => {
  await page().goto(`${satchel.url}/settings/letterhead`)
  const saving = await holdBack(/\/api\/letterhead$/, 'PUT')
  await page().getByLabel('Corners of buttons').fill('9')
  await page().getByRole('button', { name: 'Keep it' }).click()
  await until('it is on its way', () => saving.waiting() === 1)
  saveLetterhead(satchel.db, { ...readAccount(satchel.db)!.letterhead, corner: 13, size: 17 })
  await saving.letGo()
  await bothVersions('9', '13')
  await page().getByRole('button', { name: 'Keep yours' }).click()
  await page().getByRole('button', { name: 'Keep it' }).click()
  await until('mine is saved, and what only the other changed', () => {
    const { corner, size } = readAccount(satchel.db)!.letterhead
    return corner === 9 && size === 17
  })
  visitor.errors.splice(0)
})

test('two who change one stamp see both, and one is chosen', async () => {
  const stamp = () => readStamps(satchel.db).find(({ name }) => name === 'Where to find us')!
  const names = () => JSON.stringify(stamp().content)
  const id = one(
    satchel.db,
    q.selectFrom('mailings').select('id').where('name', '=', 'Wind notes 47'),
  )!.id
  await page().goto(`${satchel.url}/mail/${id}/letter`)
  await page().locator('[data-kind="social"]').click()
  await page().getByRole('textbox', { name: 'Name 3' }).fill('All kites')
  const saving = await holdBack(/\/api\/stamps\/\d+$/, 'PUT')
  await page().getByRole('button', { name: 'Change it everywhere' }).click()
  await until('it is on its way', () => saving.waiting() === 1)
  const theirs = structuredClone(stamp().content)
  const links = theirs.columns.flatMap(({ blocks }) => blocks).find((one) => one.kind === 'social')!
  if (links.kind === 'social') links.links[2]!.name = 'Every kite'
  changeStamp(satchel.db, stamp().id, theirs, stamp().version, somebodyElse, Date.now())
  await saving.letGo()
  await bothVersions('All kites', 'Every kite')
  await page().getByRole('button', { name: 'Keep yours' }).click()
  await until('mine is the stamp', () => names().includes('All kites'))
  await until(
    'and in this letter, too',
    async () =>
      (await page().getByRole('textbox', { name: 'Name 3' }).inputValue()) === 'All kites',
  )
  visitor.errors.splice(0)
})

test('what was written in a letter is saved though one goes to another mailing before it is', async () => {
  const first = draft('First of two')
  draft('Second of two')
  const subject = () => letterOf(satchel.db, mailingById(satchel.db, first)!.letter_id).subject
  await page().goto(`${satchel.url}/mail/${first}/letter`)
  const field = page().getByLabel('Subject', { exact: true })
  await field.waitFor()
  const saving = await holdBack(/\/api\/mailings\/\d+\/letter$/, 'PUT')
  await field.fill('Half a gale')
  await until('it is on its way', () => saving.waiting() === 1)
  await field.fill('Half a gale till Sunday')
  await page().getByRole('link', { name: 'Mail', exact: true }).first().click()
  await page().waitForURL(/\/mail$/)
  await page()
    .getByRole('link', { name: /Second of two/ })
    .click()
  await page().getByRole('link', { name: 'Open the letter' }).click()
  await seen('Saving “First of two” first…')
  await saving.letGo()
  await until('all of it is saved', () => subject() === 'Half a gale till Sunday')
  await page().goto(`${satchel.url}/mail/${first}/letter`)
  await until(
    'and there again',
    async () => (await field.inputValue()) === 'Half a gale till Sunday',
  )
})

test('who goes elsewhere while a copy is made is not called back, and told that it is there', async () => {
  const id = draft('Copied late')
  await page().goto(`${satchel.url}/mail?mailing=${id}`)
  await page().getByRole('heading', { name: 'Copied late' }).first().waitFor()
  const making = await holdBack(/\/api\/mailings\/\d+\/duplicate$/, 'POST')
  await page().getByRole('button', { name: 'Make a copy' }).click()
  await until('it is asked', () => making.waiting() > 0)
  await page().getByRole('link', { name: 'People', exact: true }).click()
  await page().waitForURL(/\/people/)
  await making.letGo()
  await seen('The copy is made.')
  expect(new URL(page().url()).pathname).toBe('/people')
  await page().getByRole('button', { name: 'Open it' }).click()
  await page().waitForURL(/\/mail\/\d+\/letter/)
})

test('segments to begin from can be taken before they are counted, and are counted as answers come', async () => {
  const counts = await holdBack(/segments\/counts$/, 'POST')
  await page().goto(`${satchel.url}/people/segments/new`)
  const start = (name: string) => page().getByRole('button', { name: new RegExp(`^${name}`) })
  await start('Keenest').getByText('counting…').waitFor()
  await until('the first are asked for', () => counts.waiting() === 1)
  await counts.letGo()
  const keen = parseRule('tier is keen', readCatalog(satchel.db))
  if (!keen.ok) throw new Error(keen.message)
  const n = countMembers(satchel.db, keen.rule, clockOf(satchel.db, Date.now)())
  await start('Keenest').getByText(String(n), { exact: true }).waitFor()
  await until('all are counted', async () => (await page().getByText('counting…').count()) === 0)
  await start('Keenest').click()
  await start('Keenest').waitFor({ state: 'detached' })
})

test('the browser’s console said no error', () => expect(visitor.errors).toEqual([]))
