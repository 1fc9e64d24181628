import { readFile } from 'node:fs/promises'
import { expect, test } from 'vitest'
import { mailingsOfMap } from '../core/sequences'
import { keptSequences, readSequences, sequenceById } from '../database/sequences'
import { demoInBrowser } from './demo-in-browser'
import { until } from './installation'

const { satchel, visitor, page, seen } = demoInBrowser(400)
const button = (name: string | RegExp) => page().getByRole('button', { name, exact: true })
const named = (name: string) => readSequences(satchel.db).find((one) => one.name === name)!
const newest = () => Math.max(...readSequences(satchel.db).map(({ id }) => id))
const mapOf = (id: number) => sequenceById(satchel.db, id)!.map

async function more(act: string) {
  await button('More').click()
  await page().getByRole('menuitem', { name: act }).click()
}
/** What a press gives as a file: its name and bytes. */
async function given(press: () => Promise<void>) {
  const [download] = await Promise.all([page().waitForEvent('download'), press()])
  return { name: download.suggestedFilename(), bytes: await readFile(await download.path()) }
}
async function chooseFile(name: string, text: string) {
  const input = page().getByLabel('From a file')
  await input.setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) })
}
async function openNew(made: () => Promise<void>) {
  const before = newest()
  await made()
  await until('it is made', () => newest() > before)
  await page().waitForURL(new RegExp(`/sequences/${newest()}$`))
  return newest()
}

let file = ''

test('a sequence goes out as JSON, and in again with letters of its own; what is not there is said', async () => {
  const basket = named('Basket left behind').id
  await page().goto(`${satchel.url}/sequences/${basket}`)
  await seen(/^Mail:/)
  const out = await given(() => more('File: JSON'))
  expect(out.name).toBe('Basket left behind.json')
  file = out.bytes.toString()
  const read = JSON.parse(file)
  expect(read).toMatchObject({ satchel: 'sequence', version: 1, name: 'Basket left behind' })
  const changed = { ...read, name: 'Brought in', list: 'Nowhere' }
  changed.start.rule = 'tagged "never heard of"'
  changed.start.out = 'opened any mailing in the last 3 days'
  // From its results, of which the new one has none.
  await button('Results').click()
  await seen('Came in')
  const id = await openNew(() => chooseFile('basket.json', JSON.stringify(changed)))
  await seen('Look through it')
  await seen('There is no list “Nowhere” here: choose another.')
  await seen(/“tagged "never heard of"” can’t be read here, so it holds for nobody\./)
  await visitor.expectAccessible()
  await button('I’ll look').click()
  expect(mapOf(id).start.rule).toEqual({ kind: 'any', of: [] })
  // Who may come in, and who is out, is told as it is, though no page could choose it.
  await seen('nobody')
  await seen('opened any mailing in the last 3 days')
  await seen('Nobody may come in: say anew who may.')
  await button('Take away').first().click()
  await until('it is taken away', () => mapOf(id).start.rule === null)
  expect(Object.keys(mapOf(id).steps)).toEqual(Object.keys(mapOf(basket).steps))
  const mails = mailingsOfMap(mapOf(id))
  expect(mails).toHaveLength(mailingsOfMap(mapOf(basket)).length)
  expect(mails.filter((one) => mailingsOfMap(mapOf(basket)).includes(one))).toEqual([])
})

test('a file that is none is refused with its reason, and makes nothing', async () => {
  const before = newest()
  await chooseFile('letter.json', '{"satchel":"letter"}')
  await seen('This is no sequence of Satchel.')
  await chooseFile('large.json', ' '.repeat(1_900_000))
  await seen(/larger than 1\.8 MB/)
  expect(newest()).toBe(before)
})

test('the map is taken out as a picture, with its words and fonts', async () => {
  await page().goto(`${satchel.url}/sequences/${named('First breeze').id}`)
  await seen(/^Mail:/)
  const svg = await given(() => more('Picture: SVG'))
  expect(svg.name).toBe('First breeze.svg')
  const text = svg.bytes.toString()
  const seenIn = await page().evaluate((xml) => {
    const read = new DOMParser().parseFromString(xml, 'image/svg+xml')
    return {
      broken: read.querySelector('parsererror') !== null,
      words: [...read.querySelectorAll('text')].map((one) => one.textContent),
      ways: read.querySelectorAll('svg svg path[stroke-linejoin]').length,
    }
  }, text)
  expect(seenIn.broken).toBe(false)
  expect(seenIn.words).toContain('Finish')
  expect(seenIn.words.filter((words) => words.startsWith('Mail:')).length).toBeGreaterThan(2)
  expect(seenIn.ways).toBeGreaterThan(5)
  expect(text).toMatch(/url\(data:font/)
  expect(text).not.toMatch(/var\(--|https?:\/\/127/)
  const png = await given(() => more('Picture: PNG'))
  expect([...png.bytes.subarray(1, 4)]).toEqual([...Buffer.from('PNG')])
  // Twice as fine as the page.
  const width = Number(/<svg[^>]* width="(\d+)/.exec(text)![1])
  expect(png.bytes.readUInt32BE(16)).toBe(2 * width)
})

test('kept as a template it begins others; taken away, it is given back', async () => {
  await more('Keep as a template…')
  await page().getByLabel('Name', { exact: true }).fill('Our welcome')
  await page().getByLabel('What it is for').fill('Everybody new')
  await visitor.expectAccessible()
  await button('Keep it').click()
  await seen(/Kept\. “Our welcome”/)
  const id = await openNew(() => button('New sequence').click())
  await page()
    .getByRole('button', { name: /^Our welcome/ })
    .click()
  await seen(/^Mail:/)
  const source = mapOf(named('First breeze').id)
  expect(Object.keys(mapOf(id).steps)).toEqual(Object.keys(source.steps))
  expect(mailingsOfMap(mapOf(id))).not.toEqual(mailingsOfMap(source))
  await button('Undo').first().click()
  await button('Delete the template Our welcome').click()
  await until('it is gone', () => keptSequences(satchel.db).length === 0)
  await page().locator('[aria-live]').getByRole('button', { name: 'Undo' }).click()
  await until('it is back', () => keptSequences(satchel.db).length === 1)
})

test('what does not run is archived, found there, and taken back', async () => {
  const id = newest()
  const list = page().getByRole('navigation', { name: 'Sequences' })
  const { name } = sequenceById(satchel.db, id)!
  await more('Archive')
  await until('it is put away', () => sequenceById(satchel.db, id)!.archived_at !== null)
  await page().goto(`${satchel.url}/sequences`)
  await page().waitForURL(/\/sequences\/\d+$/)
  await button('Archived (1)').waitFor()
  expect(await list.getByText(name, { exact: true }).count()).toBe(0)
  await button('Archived (1)').click()
  await list.getByText(name, { exact: true }).click()
  await page().waitForURL(new RegExp(`/sequences/${id}$`))
  await visitor.expectAccessible()
  await more('Take out of the archive')
  await until('it is back', () => sequenceById(satchel.db, id)!.archived_at === null)
  // What runs is not put away.
  await list.getByText('First breeze', { exact: true }).click()
  await page().waitForURL(new RegExp(`/sequences/${named('First breeze').id}$`))
  await button('More').click()
  await page().getByRole('menuitem', { name: 'Duplicate' }).waitFor()
  expect(await page().getByRole('menuitem', { name: 'Archive' }).count()).toBe(0)
})

test('the browser’s console said no error but those that were provoked', () => {
  expect(visitor.errors.filter((error) => !error.includes('422'))).toEqual([])
})
