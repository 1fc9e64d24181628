import { afterAll, beforeAll, expect, test } from 'vitest'
import { all, q } from '../database'
import { visit, type Visitor } from './browser'
import { install, type Installation } from './installation'

/** Every page, as it stands on a desktop and on a small one: nothing is cut off, nothing scrolls inside what scrolls. */
let satchel: Installation
let visitor: Visitor
const failed: string[] = []
const sizes = [
  { width: 1280, height: 800 },
  { width: 1024, height: 700 },
]

beforeAll(async () => {
  satchel = await install({ demo: 900 })
  await satchel.start('web')
  visitor = await visit()
  visitor.page.on('response', (answer) => {
    if (answer.status() >= 400) failed.push(`${answer.status()} ${answer.url()}`)
  })
  await visitor.page.goto(satchel.enterUrl)
})
afterAll(async () => {
  await visitor?.close()
  await satchel?.stop()
})

const idOf = (table: 'mailings' | 'sequences' | 'segments' | 'sign_ups', name?: string) => {
  const rows = all(satchel.db, q.selectFrom(table).select(['id', 'name']).orderBy('id', 'desc'))
  return (rows.find((row) => row.name === name) ?? rows[0]!).id
}
const draft = () => `/mail/${idOf('mailings', 'Wind notes 47')}`
const sent = () => {
  const done = q
    .selectFrom('mailings')
    .select('id')
    .where('state', '=', 'sent')
    .orderBy('id', 'desc')
  return `/mail/${all(satchel.db, done)[0]!.id}`
}
const signUp = () => `/sign-ups/${idOf('sign_ups', 'Twelve beaches guide')}`
const lookOfRow = 'letter, with the looks of a row and a block open'
const pages: Record<string, () => string> = {
  today: () => '/',
  people: () => '/people',
  'a person': () =>
    `/people/${all(satchel.db, q.selectFrom('people').select('id').limit(1))[0]!.id}`,
  'add a person': () => '/people/add',
  import: () => '/people/import',
  'fields, tags, lists': () => '/people/vocabulary',
  'a segment': () => `/people/segments/${idOf('segments')}`,
  'a new segment': () => '/people/segments/new',
  'segments beside each other': () => '/people/segments/compare',
  'in SQL': () => '/people/sql',
  mail: () => '/mail',
  'a new mailing': () => '/mail/new',
  calendar: () => '/mail/calendar',
  stamps: () => '/mail/stamps',
  pictures: () => '/mail/pictures',
  audience: () => `${draft()}/audience`,
  letter: () => `${draft()}/letter`,
  [lookOfRow]: () => `${draft()}/letter`,
  proof: () => `${draft()}/proof`,
  renderings: () => `${draft()}/renderings`,
  history: () => `${draft()}/history`,
  dispatch: () => `${draft()}/dispatch`,
  'dispatch of what was sent': () => `${sent()}/dispatch`,
  'results of a mailing': () => `${sent()}/results`,
  sequences: () => '/sequences',
  'a sequence': () => `/sequences/${idOf('sequences')}`,
  standing: () => '/standing',
  'sign-ups': () => '/sign-ups',
  'a sign-up': signUp,
  'its consent': () => `${signUp()}/consent`,
  'its afterwards': () => `${signUp()}/afterwards`,
  'its placement': () => `${signUp()}/placement`,
  'its results': () => `${signUp()}/results`,
  results: () => '/results',
  'results of the account': () => '/results/account',
  data: () => '/results/data',
  settings: () => '/settings',
  tasks: () => '/tasks',
  letterhead: () => '/settings/letterhead',
  team: () => '/settings/team',
  you: () => '/settings/me',
  'what is kept': () => '/settings/kept',
  'audit log': () => '/settings/audit',
}

/** What is wrong with how the page stands, measured in it. */
function measure(): string[] {
  const found: string[] = []
  const name = (element: Element) =>
    `${element.tagName.toLowerCase()}.${String(element.getAttribute('class') ?? '')
      .split(' ')
      .slice(0, 5)
      .join('.')} “${(element.textContent ?? '').trim().replace(/\s+/g, ' ').slice(0, 40)}”`
  if (document.documentElement.scrollWidth > innerWidth)
    found.push('the page is wider than the window')
  if (document.documentElement.scrollHeight > innerHeight + 1)
    found.push('the page is taller than the window')
  const seen = [...document.querySelectorAll('body *')].filter((element) =>
    (element as HTMLElement).checkVisibility({ visibilityProperty: true }),
  )
  const scrolls = (element: Element) => {
    const { overflowY } = getComputedStyle(element)
    return /auto|scroll/.test(overflowY) && element.scrollHeight > element.clientHeight + 1
  }
  for (const element of seen.filter(scrolls))
    for (let up = element.parentElement; up; up = up.parentElement)
      if (scrolls(up) && element.tagName !== 'TEXTAREA')
        found.push(`${name(element)} scrolls inside ${name(up)}`)
  for (const element of seen) {
    if (element.closest('svg, iframe, input, .sr-only, [aria-hidden=true]')) continue
    // A letter that is drawn smaller is laid out larger.
    if (element.querySelector('iframe')) continue
    const style = getComputedStyle(element)
    const box = element.getBoundingClientRect()
    const cuts = /hidden|clip/.test(style.overflowX) && style.textOverflow !== 'ellipsis'
    if (cuts && element.scrollWidth > element.clientWidth + 1 && box.width > 1)
      found.push(`${name(element)} cuts off ${element.scrollWidth - element.clientWidth} px`)
    let clip = element.parentElement
    while (clip && !/auto|scroll|hidden|clip/.test(getComputedStyle(clip).overflowX))
      clip = clip.parentElement
    const limit = clip ? clip.getBoundingClientRect().right : innerWidth
    const own = [...element.childNodes].some(
      (node) => node.nodeType === 3 && node.textContent!.trim(),
    )
    if (own && !clip && box.right > limit + 1)
      found.push(`${name(element)} goes over the right edge`)
  }
  for (const table of document.querySelectorAll('table')) {
    const [head, first] = [table.tHead?.rows[0], table.tBodies[0]?.rows[0]]
    if (!head || head.closest('.sr-only') || !first || head.cells.length !== first.cells.length)
      continue
    ;[...head.cells].forEach((cell, i) => {
      const [above, below] = [cell, first.cells[i]!].map((one) => one.getBoundingClientRect())
      if (Math.abs(above!.left - below!.left) > 1)
        found.push(`${name(cell)} does not stand over its column`)
    })
  }
  return [...new Set(found)]
}

async function openLookOfRow() {
  const { page } = visitor
  await page.locator('[data-kind]').first().click()
  for (const look of ['Look of the block', 'Look of the row'])
    await page.getByText(look, { exact: true }).click()
}

/** The page has room to draw itself anew in: two frames, and what they start. */
const drawn = () =>
  visitor.page.evaluate(
    () =>
      new Promise<void>((done) => requestAnimationFrame(() => requestAnimationFrame(() => done()))),
  )

test('every page stands as it should, and is accessible, at both sizes', async () => {
  const { page } = visitor
  const found: Record<string, unknown> = {}
  for (const [name, path] of Object.entries(pages)) {
    await page.setViewportSize(sizes[0]!)
    await page.goto(satchel.url + path())
    await page.locator('h1, h2, [data-kind]').first().waitFor()
    await page.waitForLoadState('networkidle', { timeout: 5_000 }).catch(() => {})
    if (name === lookOfRow) await openLookOfRow()
    for (const size of sizes) {
      await page.setViewportSize(size)
      await drawn()
      const problems = await page.evaluate(measure)
      if (problems.length) found[`${name} at ${size.width}`] = problems
      await visitor.expectAccessible()
    }
  }
  expect(found).toEqual({})
  expect(failed).toEqual([])
  expect(visitor.errors).toEqual([])
  // Some forty pages, each twice, on a machine that may be ten times as slow.
}, 1_800_000)
