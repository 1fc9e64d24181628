import sharp from 'sharp'
import { expect, test } from 'vitest'
import { blocksOf, conditionsOf } from '../core/letters'
import type { Rule } from '../core/segments'
import { one, q } from '../database'
import { clockOf } from '../database/account'
import { commentsOn, letterOf } from '../database/letters'
import { audienceWaterfall, countGaps } from '../database/segments'
import { audienceOf, mailingById, renditionsFor } from '../database/mailings'
import { demoInBrowser } from './demo-in-browser'
import { until } from './installation'

/** A letter that differs per reader, from a template to the way back to an older version. */
const { satchel, visitor, page, seen } = demoInBrowser(600)
let id: number
const now = () => clockOf(satchel.db, Date.now)()
const letter = () => letterOf(satchel.db, mailingById(satchel.db, id)!.letter_id)
const saved = (what: string, is: () => boolean) => until(what, is)
const frame = () => page().frameLocator('iframe[title="The letter as it is read"]')
const flies = (text: string): Rule => ({
  kind: 'field',
  key: 'flying_style',
  test: { is: 'includes', text },
})
const rowSettings = () => page().locator('section').filter({ hasText: /^Row/ })
const block = (kind: string) => page().locator(`[data-kind="${kind}"]`)

/** Shows the row of the chosen block to those who fly something. */
async function showTo(style: string) {
  await rowSettings().getByLabel('Shown to').selectOption('rule')
  await page().getByRole('combobox', { name: 'Add a rule' }).fill('flying style')
  await page().getByRole('option', { name: 'Flying style includes', exact: true }).click()
  await page().getByLabel('Value').click()
  await page().keyboard.press('Control+a')
  await page().keyboard.type(style)
  await page().keyboard.press('Enter')
  await seen(`Flying style includes "${style}"`)
  await visitor.expectAccessible()
  await page().getByRole('button', { name: 'Show it to them' }).click()
}

test('a letter starts from a template, found by what it is for', async () => {
  await page().goto(`${satchel.url}/mail`)
  await seen('Wind notes 47')
  await page().keyboard.press('n')
  await seen('The usual start')
  await visitor.expectAccessible()
  await page().getByRole('link', { name: 'Sell', exact: true }).click()
  await page().waitForURL(/for=Sell/)
  await page().getByLabel('Find something to start from').fill('abandoned')
  await until('one is left', async () => (await page().locator('main button iframe').count()) === 1)
  await page().getByLabel('Find something to start from').fill('nothing like it')
  await seen('Nothing to start from is called that.')
  await page().getByRole('button', { name: 'An empty page' }).click()
  await page().waitForURL(/mail\/\d+\/letter/)
  id = Number(/mail\/(\d+)/.exec(page().url())![1])
  await seen('Footer')
  await seen('Here your letter begins')
  await visitor.expectAccessible()
})

test('writing goes on under a heading; a link keeps its words; nothing is put under the footer', async () => {
  await page().getByRole('button', { name: 'Insert a block here' }).first().click()
  await page().getByRole('combobox', { name: 'Which block' }).fill('heading')
  await page().keyboard.press('Enter')
  await page().keyboard.type('Wind')
  await page().keyboard.press('Enter')
  await block('text').locator('.paper-text').waitFor()
  await until('the new text is written in', () =>
    page().evaluate(() => !!document.activeElement?.closest('[data-kind="text"]')),
  )
  await page().keyboard.type('Look at the kites')
  const marked = () => page().evaluate(() => String(getSelection()))
  for (const words of ['kites', 'the kites']) {
    await page().keyboard.press('Control+Shift+ArrowLeft')
    await until('the words are marked', async () => (await marked()) === words)
  }
  await page().keyboard.press('Control+k')
  await until('the address is typed in its own place', () =>
    page()
      .getByLabel('Where the link leads')
      .evaluate((field) => field === document.activeElement),
  )
  await page().keyboard.type('galewright.example/kites')
  await page().keyboard.press('Enter')
  await block('text').locator('a', { hasText: 'the kites' }).waitFor()
  expect(await block('text').locator('.paper-text').innerText()).toBe('Look at the kites')
  await block('text').locator('.paper-text').click()
  await page().keyboard.press('Control+End')
  await page().keyboard.press('Enter')
  await page().keyboard.press('/')
  await page().keyboard.type('divider')
  await page().keyboard.press('Enter')
  await block('divider').waitFor()
  expect(await block('text').locator('p').count()).toBe(1)
  const order = () =>
    page()
      .locator('[data-kind]')
      .evaluateAll((all) => all.map((one) => one.getAttribute('data-kind')))
  expect(await order()).toEqual(['heading', 'text', 'divider', 'footer'])
  await page().keyboard.press('Escape')
  await block('divider').click({ position: { x: 5, y: 5 } })
  await page().keyboard.press('Alt+ArrowDown')
  expect(await order()).toEqual(['heading', 'text', 'divider', 'footer'])
  const undo = page().getByRole('button', { name: 'Undo', exact: true })
  for (let i = 0; i < 30 && (await block('heading').count()); i++) await undo.click()
  expect(await order()).toEqual(['footer'])
  await page().keyboard.press('Control+y')
  await block('heading').waitFor()
  await undo.click()
})

test('a picture that is pasted into a text stands under it', async () => {
  await page().getByRole('button', { name: 'Insert a block here' }).first().click()
  await page().getByRole('combobox', { name: 'Which block' }).fill('text')
  await page().keyboard.press('Enter')
  await until('the text is written in', () =>
    page().evaluate(() => !!document.activeElement?.closest('[data-kind="text"]')),
  )
  const image = { width: 8, height: 8, channels: 3 as const, background: '#b4573c' }
  const bytes = [...(await sharp({ create: image }).png().toBuffer())]
  await page().evaluate((bytes) => {
    const clipboardData = new DataTransfer()
    clipboardData.items.add(new File([new Uint8Array(bytes)], 'kite.png', { type: 'image/png' }))
    document.activeElement!.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }),
    )
  }, bytes)
  await block('picture').locator('img').waitFor()
  const undo = page().getByRole('button', { name: 'Undo', exact: true })
  for (let i = 0; i < 10 && (await block('text').count()); i++) await undo.click()
  expect(await block('picture').count()).toBe(0)
})

test('blocks of several kinds stand in columns, and move between them', async () => {
  const insert = async (line: string, kind: string) => {
    await page().getByRole('button', { name: line }).first().click()
    await page().getByRole('combobox', { name: 'Which block' }).fill(kind)
    await page().keyboard.press('Enter')
  }
  await insert('Insert a block here', 'heading')
  await block('heading').locator('.paper-text:focus').waitFor()
  await page().keyboard.type('For stunt flyers')
  await page().getByRole('group', { name: 'Columns' }).getByRole('button', { name: '2' }).click()
  await insert('Insert a block into column 2', 'quote')
  await block('quote').getByRole('textbox', { name: 'Who said it' }).fill('Tove, Orrin')
  await page().getByLabel('Width of column 1, per cent').fill('30')
  await page().getByLabel('Width of column 1, per cent').press('Tab')
  await page().getByLabel('On phones', { exact: true }).selectOption('reverse')
  await saved('the row is saved with its columns', () => {
    const [row] = letter().document.rows
    return (
      row!.columns.length === 2 &&
      row!.narrow === 'reverse' &&
      Math.abs(row!.columns[0]!.share - 0.3) < 0.01
    )
  })
  await insert('Insert a block here', 'table')
  await page().getByRole('textbox', { name: 'Row 1, column 1' }).fill('Kite')
  await page().getByRole('button', { name: 'Column +' }).click()
  await page().getByRole('textbox', { name: 'Row 1, column 3' }).fill('Price')
  await saved('the table is saved', () =>
    blocksOf(letter().document).some((one) => one.kind === 'table' && one.cells[0]![2] === 'Price'),
  )
  await visitor.expectAccessible()
  await block('table').click()
  await page().getByRole('button', { name: 'Delete' }).click()
  expect(await block('table').count()).toBe(0)
})

test('two rows are shown to some, the third to everyone else; the renditions have their counts', async () => {
  await page().getByLabel('Subject').fill('Who flies what')
  await seen('14 characters.')
  await page().getByRole('list', { name: 'In an inbox' }).getByText('Who flies what').waitFor()
  await block('heading').first().click()
  await showTo('stunt')
  await saved('the first has its rule', () => conditionsOf(letter().document).rules.length === 1)
  for (const [i, words] of ['For single-line', 'For the rest'].entries()) {
    await page()
      .getByRole('button', { name: 'Insert a block here' })
      .nth(i + 1)
      .click()
    await page().keyboard.press('Enter')
    await block('text').nth(i).locator('.paper-text:focus').waitFor()
    await page().keyboard.type(words)
  }
  await block('text').nth(0).click()
  await showTo('single-line')
  await block('text').nth(1).click()
  await rowSettings().getByLabel('Shown to').selectOption('rest')
  await saved('all three are saved', () => conditionsOf(letter().document).of.size === 3)
  expect(conditionsOf(letter().document).rules).toEqual([flies('stunt'), flies('single-line')])
  const expected = renditionsFor(
    satchel.db,
    letter().document,
    audienceOf(satchel.db, mailingById(satchel.db, id)!)!,
    now(),
  )
  const chips = page().getByRole('group', { name: 'Renditions' }).getByRole('button')
  await until('the renditions are those of the audience', async () => {
    const shown = (await chips.allInnerTexts()).map((text) => Number(text.replace(/\D/g, '')))
    return shown.join() === expected.map(({ people }) => people).join()
  })
  expect(expected.length).toBe(4)
  await visitor.expectAccessible()
})

test('a fill-in says how many of the audience have a value', async () => {
  const audience = audienceOf(satchel.db, mailingById(satchel.db, id)!)!
  const all = audienceWaterfall(satchel.db, audience, now()).at(-1)!.left
  const have = all - countGaps(satchel.db, audience, 'town', now())
  await block('text').first().click()
  await page().getByRole('button', { name: 'Fill-in', exact: true }).click()
  await page().getByLabel('Value', { exact: true }).selectOption({ label: 'Town' })
  await seen(`${have} of ${all} people have one`)
  await page().getByRole('button', { name: 'Fill-in', exact: true }).click()
})

test('a block is commented on, answered, resolved and opened again', async () => {
  await block('heading').first().click()
  await page().getByLabel('Comment on this block').fill('Is this <b>too</b> long?')
  await page().getByRole('button', { name: 'Comment', exact: true }).click()
  await seen('Is this <b>too</b> long?')
  await page().getByRole('button', { name: 'Answer', exact: true }).click()
  await page().getByLabel('Your answer').fill('No, it stays')
  await page().keyboard.press('Enter')
  await seen('No, it stays')
  await visitor.expectAccessible()
  const { letter_id } = mailingById(satchel.db, id)!
  expect(commentsOn(satchel.db, letter_id)).toMatchObject([{ answers: [{ text: 'No, it stays' }] }])
  await page().getByRole('button', { name: 'Resolve' }).click()
  await seen('1 resolved')
  await page().getByRole('button', { name: 'Undo' }).last().click()
  await page().getByRole('button', { name: 'Resolve' }).waitFor()
  expect(commentsOn(satchel.db, letter_id)[0]!.resolved).toBeNull()
})

test('it is read as three people: each sees what is for them', async () => {
  const { document } = letter()
  const audience = audienceOf(satchel.db, mailingById(satchel.db, id)!)!
  const renditions = renditionsFor(satchel.db, document, audience, now())
  const words = ['For stunt flyers', 'For single-line', 'For the rest']
  for (const [i, { without }] of renditions.entries()) {
    await page().getByRole('group', { name: 'Renditions' }).getByRole('button').nth(i).click()
    await page().getByRole('button', { name: 'Next reader' }).click()
    const shown = words.filter((_, row) => !without.includes(document.rows[row]!.id))
    for (const text of words) {
      const found = frame().getByText(text)
      if (shown.includes(text)) await found.waitFor()
      else await until(`${text} is not shown`, async () => (await found.count()) === 0)
    }
  }
  const somebody = one(
    satchel.db,
    q
      .selectFrom('people')
      .select(['first_name', 'address'])
      .where('first_name', 'is not', null)
      .orderBy('id', 'desc')
      .limit(1),
  )!
  await page().getByRole('button', { name: 'Find…' }).click()
  await page().getByRole('combobox', { name: 'Read as whom' }).fill(somebody.address)
  const people = page().getByRole('listbox', { name: 'People' })
  await people.getByRole('option').first().waitFor()
  await visitor.expectAccessible()
  await page().keyboard.press('Enter')
  const header = page().locator('b').filter({ hasText: somebody.first_name! })
  await header.first().waitFor()
  await page().getByRole('button', { name: 'Plain text', exact: true }).click()
  await seen(/Unsubscribe: .*Change what you get: /s)
  await page().getByRole('button', { name: 'Write', exact: true }).click()
})

test('it is drawn as classes of mail program draw it, side by side', async () => {
  await page().getByRole('link', { name: 'All renderings' }).click()
  await seen('Old word-processor engine')
  expect(await page().locator('iframe').count()).toBe(6)
  await page()
    .frameLocator('iframe[title="Pictures off"]')
    .getByText('Change what you get')
    .first()
    .waitFor()
  const dark = page().frameLocator('iframe[title="Dark, all inverted"]').locator('body')
  expect(await dark.evaluate((body) => getComputedStyle(body).backgroundColor)).not.toBe(
    'rgb(255, 255, 255)',
  )
  await visitor.expectAccessible()
  await page().getByRole('link', { name: 'Phone', exact: true }).click()
  await page().waitForURL(/screen=narrow/)
  await page().goto(`${satchel.url}/mail/${id}/letter`)
})

test('the letterhead changes, is seen before it is kept, and letters follow', async () => {
  await page().goto(`${satchel.url}/settings/letterhead`)
  await page().getByLabel('Headings').selectOption({ label: 'Palatino' })
  await page().getByLabel('Corners of buttons').fill('14')
  await page().frameLocator('iframe >> nth=2').locator('h1[style]').waitFor()
  await page().getByRole('button', { name: 'Ember' }).click()
  await page().getByLabel('Headings').selectOption({ label: 'Palatino' })
  expect(await page().getByLabel('Second colour', { exact: true }).inputValue()).toBe('#f0b23e')
  await visitor.expectAccessible()
  await page().getByRole('button', { name: 'Keep it' }).click()
  await seen('Every letter in it that has not gone out follows.')
  await page().goto(`${satchel.url}/mail/${id}/letter`)
  const font = () => block('heading').first().locator('[style*="Palatino"]').count()
  await until('the paper has the new font', async () => (await font()) > 0)
  await block('heading').first().click()
  await page().getByText('Look of the block').click()
  const look = page().locator('details').filter({ hasText: 'Look of the block' })
  await look.getByLabel('Size', { exact: true }).fill('20')
  // What is being typed stays, though the mailing is drawn anew meanwhile.
  const renamed = await page().request.put(`${satchel.url}/api/mailings/${id}`, {
    data: { name: 'Renamed elsewhere' },
  })
  expect(renamed.status()).toBe(200)
  await until(
    'the new name is shown',
    async () =>
      (await page().getByLabel('Name of the mailing').inputValue()) === 'Renamed elsewhere',
  )
  await look.getByLabel('Size', { exact: true }).press('Tab')
  await saved('the block says its size itself', () =>
    blocksOf(letter().document).some(({ style }) => style?.size === 20),
  )
  await look.getByRole('button', { name: 'Size: as it is around' }).click()
  await saved('and gives it back', () =>
    blocksOf(letter().document).every(({ style }) => style?.size === undefined),
  )
})

test('an older version is compared and restored, and that is undone', async () => {
  await page().goto(`${satchel.url}/mail/${id}/history`)
  await seen('as it was begun')
  await page()
    .getByRole('link', { name: /as it was begun/ })
    .click()
  await seen(/things are different now/)
  await seen('Subject')
  await visitor.expectAccessible()
  await page().getByRole('button', { name: 'Restore this version' }).click()
  await seen('The letter is as it was then.')
  expect(letter()).toMatchObject({ subject: '' })
  expect(blocksOf(letter().document).map(({ kind }) => kind)).toEqual(['footer'])
  await page().getByRole('button', { name: 'Undo' }).click()
  await until('it is as it was', () => letter().subject === 'Who flies what')
  expect(conditionsOf(letter().document).of.size).toBe(3)
})

test('it is taken out in open formats, and read on the web by anybody with its address', async () => {
  const get = async (format: string) => {
    const answer = await page().request.get(
      `${satchel.url}/api/mailings/${id}/source?format=${format}`,
    )
    expect(answer.status()).toBe(200)
    return answer.text()
  }
  expect(await get('html')).toContain('For single-line')
  expect(await get('mjml')).toMatch(/^<mjml/)
  expect(await get('text')).toContain('For the rest')
  expect(await get('eml')).toMatch(/^Subject: Who flies what\r$/m)
  expect(JSON.parse(await get('json'))).toMatchObject({ document: { version: 1 } })
  await page().goto(`${satchel.url}/mail/${id}/letter`)
  await page().getByRole('button', { name: 'Export', exact: true }).click()
  await page().getByRole('button', { name: 'Make a web version' }).click()
  const link = page().getByRole('link', { name: /\/w\// })
  const address = (await link.getAttribute('href'))!
  await visitor.expectAccessible()
  const web = await (await fetch(address)).text()
  expect(web).toContain('For the rest')
  expect(web).not.toContain('For stunt flyers')
  expect(web).toContain('<meta property="og:title" content="Who flies what">')
  expect(web).not.toMatch(/#leave|\/o\/|\/c\//)
  await page().getByRole('button', { name: 'Remove the web version' }).click()
  await until('it is gone', async () => (await fetch(address)).status === 404)
  const mailings = one(
    satchel.db,
    q.selectFrom('letters').select((eb) => eb.fn.count<number>('web_key').as('n')),
  )!
  expect(mailings.n).toBe(0)
})

test('the browser’s console said no error', () => expect(visitor.errors).toEqual([]))
