import { readFileSync } from 'node:fs'
import { expect, test } from 'vitest'
import { all, one, q } from '../database'
import { ownFields, tagsWithCounts } from '../database/people'
import { demoInBrowser } from './demo-in-browser'
import { until } from './installation'

/** Fields, tags and lists put in order; and people brought in by other ways than a CSV file. */
const { satchel, visitor, page, seen } = demoInBrowser(300)
const dialog = () => page().getByRole('dialog')

test('people are pasted from an address book, read, counted and taken', async () => {
  await page().goto(`${satchel.url}/people/import`)
  await page().getByRole('button', { name: 'Paste people' }).click()
  await page()
    .getByLabel(/^Addresses and names/)
    .fill(readFileSync('demo/files/pasted.txt', 'utf8'))
  await page().getByRole('button', { name: 'Read what is pasted' }).click()
  await seen('How the columns were understood')
  expect(await page().getByLabel('Name becomes').inputValue()).toBe('whole-name')
  await visitor.expectAccessible()
  await page()
    .getByRole('button', { name: /^Count 8 rows/ })
    .click()
  await page()
    .getByRole('button', { name: /^Import: write/ })
    .click()
  await seen('Done')
  await seen('This is not an address: it has no @.')
  const bram = one(
    satchel.db,
    q.selectFrom('people').selectAll().where('normal', '=', 'bram@inkpost.example'),
  )
  expect(bram).toMatchObject({ first_name: 'Bram', last_name: 'Prynne-Marsh' })
})

test('a file with the same columns is taken as the last time, or understood anew', async () => {
  const csv = (name: string) =>
    Buffer.from(`mail;nick\nx@inkpost.example;${name}\ny@inkpost.example;Ann\n`, 'latin1')
  const choose = (name: string) =>
    page()
      .getByLabel('Choose a file')
      .setInputFiles({ name: 'nicks.csv', mimeType: 'text/csv', buffer: csv(name) })
  await page().goto(`${satchel.url}/people/import`)
  await choose('Zoë')
  await page().getByLabel('nick becomes').selectOption('field:first_name')
  await page().getByLabel('Who is written').selectOption('update')
  await page()
    .getByRole('button', { name: /^Count/ })
    .click()
  await page().waitForURL(/imports\/\d+/)
  await page().goto(`${satchel.url}/people/import`)
  await choose('Jörn')
  await seen(/Taken as the file with the same columns/)
  expect(await page().getByLabel('nick becomes').inputValue()).toBe('field:first_name')
  expect(await page().getByLabel('Who is written').inputValue()).toBe('update')
  await visitor.expectAccessible()
  await page().getByRole('button', { name: 'Understand it anew' }).click()
  expect(await page().getByLabel('nick becomes').inputValue()).toMatch(/^new:/)
  // How it was taken comes late: what was chosen meanwhile stays.
  let tell = () => {}
  const told = new Promise<void>((done) => (tell = done))
  await page().route('**/api/imports/mapping', async (route) => {
    await told
    await route.continue()
  })
  await choose('Jörn')
  await page().getByLabel('nick becomes').selectOption('skip')
  await page().getByLabel('Who is written').selectOption('add')
  const answered = page().waitForResponse('**/api/imports/mapping')
  tell()
  await (await answered).finished()
  await page().unroute('**/api/imports/mapping')
  // Time for the page to take it, if it did.
  await page().waitForTimeout(500)
  expect(await page().getByLabel('nick becomes').inputValue()).toBe('skip')
  expect(await page().getByLabel('Who is written').inputValue()).toBe('add')
  await page().getByLabel('nick becomes').selectOption('field:first_name')
})

test('the encoding that was told can be changed', async () => {
  await seen('Jörn')
  expect(await page().getByLabel('encoding').inputValue()).toBe('windows-1252')
  await page().getByLabel('encoding').selectOption('utf-8')
  await seen('J\uFFFDrn')
  await page().getByLabel('encoding').selectOption('windows-1252')
  await seen('Jörn')
})

test('a file is asked about where it can be read in several ways, and one can go back from the count to its columns', async () => {
  const lines = [
    'sep=;',
    'Members of the harbour club;;;',
    'E-Mail;Joined;Wants;Fee',
    'ann@inkpost.example;03/04/2024;opted in;£12',
    'info@inkpost.example;05/06/2024;rather not;1,000',
    'nobody;;;',
  ]
  await page().goto(`${satchel.url}/people/import`)
  const input = page().locator('input[type=file]')
  const named = (name: string, text: string) =>
    input.setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) })
  await named('bare.csv', 'ann@inkpost.example,Ann\nbo@inkpost.example,Bo\n')
  const counting = page().getByRole('button', { name: /^Count/ })
  await seen('Say whether the file has a header.')
  expect(await counting.isDisabled()).toBe(true)
  await page().getByRole('button', { name: 'Yes, it has no header' }).click()
  await page().getByLabel('Column 2 becomes').selectOption('field:first_name')
  expect(await counting.isEnabled()).toBe(true)

  await named('club.csv', lines.join('\r\n'))
  await seen('Left out before it: row 1 “sep=”, row 2 “Members of the harbour club”')
  const order = page().getByLabel('Joined: order of dates')
  await order.waitFor()
  await seen('Say how the dates in Joined are read.')
  await seen('day or month first?')
  await order.selectOption('mdy')
  await seen('2024-03-04')
  await page().getByLabel('Wants becomes').selectOption('list:1')
  await page().getByLabel('Wants: words for no').fill('rather not')
  await page().getByLabel('Wants: words for no').blur()
  await seen('does not join')
  await page().getByLabel('Name of the new field for Fee').fill('Club fee')
  await page().getByLabel('How they agreed to it').fill('Ticked at the harbour.')
  await page().getByLabel('They asked for what this puts them on').check()
  await visitor.expectAccessible()
  await counting.click()
  await seen('What would become of 3 rows')
  await seen('info@ is a role, not a person.')
  await page().getByLabel('Leave out row 5').check()
  await seen('1, 1 left out')
  await visitor.expectAccessible()
  await page().getByRole('link', { name: 'go back to the columns' }).click()
  await page().getByLabel('Joined: order of dates').waitFor()
  expect(await page().getByLabel('Joined: order of dates').inputValue()).toBe('mdy')
  expect(await page().getByLabel('Name of the new field for Fee').inputValue()).toBe('Club fee')
  expect(await page().getByLabel('How they agreed to it').inputValue()).toBe(
    'Ticked at the harbour.',
  )
  await counting.click()
  await seen('What would become of 3 rows')
  await page().getByLabel('Leave out row 5').check()
  await seen('1, 1 left out')
  await page()
    .getByRole('button', { name: /^Import/ })
    .click()
  await seen('What became of 3 rows')
  await until('Ann is changed', () => {
    const ann = all(
      satchel.db,
      q.selectFrom('people').select('fields').where('normal', '=', 'ann@inkpost.example'),
    )[0]
    return !!ann && /"joined":"2024-03-04".*"club_fee":12/.test(ann.fields)
  })
})

test('vCards come in; what only looks like a workbook is refused with a sentence', async () => {
  await page().goto(`${satchel.url}/people/import`)
  const card =
    'BEGIN:VCARD\r\nVERSION:4.0\r\nFN:Tove Wetherlam\r\nN:Wetherlam;Tove;;;\r\nEMAIL:tove.card@inkpost.example\r\nBDAY:19840930\r\nEND:VCARD\r\n'
  const input = page().getByLabel('Choose a file')
  await input.setInputFiles({ name: 'tove.vcf', mimeType: 'text/vcard', buffer: Buffer.from(card) })
  await seen('How the columns were understood')
  await seen('1984-09-30')
  const broken = Buffer.from([0x50, 0x4b, 3, 4, 1, 2, 3])
  await input.setInputFiles({ name: 'x.xlsx', mimeType: 'application/zip', buffer: broken })
  await seen('This workbook can’t be read.')
})

test('a field is made, renamed with undo, retired and brought back', async () => {
  await page().goto(`${satchel.url}/people/vocabulary`)
  await seen('person.first_kite')
  await visitor.expectAccessible()
  await page().getByRole('textbox', { name: 'Name', exact: true }).fill('Shoe size')
  await page().getByLabel('Holds').selectOption('number')
  await page().getByRole('button', { name: 'Make it' }).click()
  await seen('person.shoe_size')
  await page().getByRole('textbox', { name: 'Name', exact: true }).fill('shoe SIZE')
  await page().getByRole('button', { name: 'Make it' }).click()
  await seen('There is a field with this name already.')
  await page().getByLabel('Name of Shoe size').fill('Boot size')
  await page().getByLabel('Name of Shoe size').press('Tab')
  await seen('Shoe size is called Boot size now.')
  await page().getByRole('button', { name: 'Undo' }).click()
  await page().getByLabel('Name of Shoe size').waitFor()
  const open = () => page().getByRole('checkbox', { name: 'Readers may change Shoe size' })
  await open().check()
  await seen('Readers see and change Shoe size on their own page.')
  await page().reload()
  await open().waitFor()
  expect(await open().isChecked()).toBe(true)
  await open().uncheck()
  await seen('Readers do not see Shoe size any more.')
  expect(ownFields(satchel.db).find(({ name }) => name === 'Shoe size')!.readers).toBe(0)
  await page().getByRole('button', { name: 'Retire Shoe size' }).click()
  await page().getByRole('button', { name: 'Bring back Shoe size' }).click()
  await page().getByRole('button', { name: 'Retire Shoe size' }).waitFor()
})

test('a field becomes another kind after one has seen what is lost, and two are joined', async () => {
  const before = ownFields(satchel.db).map(({ key }) => key)
  await page().getByRole('button', { name: 'Change First kite' }).click()
  await dialog().getByLabel('It holds').nth(1).selectOption('number')
  await dialog()
    .getByText(/lose it/)
    .waitFor()
  await visitor.expectAccessible()
  await dialog().getByRole('button', { name: 'Cancel' }).click()
  await page().getByRole('button', { name: 'Change Shoe size' }).click()
  await dialog().getByLabel('Merge it into').nth(1).selectOption({ label: 'First kite' })
  await dialog().getByRole('button', { name: 'Merge' }).click()
  await dialog().waitFor({ state: 'detached' })
  expect(ownFields(satchel.db).map(({ key }) => key)).toEqual(
    before.filter((key) => key !== 'shoe_size'),
  )
})

test('a tag is coloured, renamed, joined to another, and one is taken away', async () => {
  await page().getByRole('link', { name: 'Tags', exact: true }).click()
  const [first, second] = tagsWithCounts(satchel.db)
  await page().getByLabel(`Colour of ${first!.name}`).selectOption('green')
  await until('it is green', () => tagsWithCounts(satchel.db)[0]!.color === 'green')
  await visitor.expectAccessible()
  await page()
    .getByRole('button', { name: `Merge ${first!.name}` })
    .click()
  await dialog().getByRole('combobox').selectOption({ label: second!.name })
  await dialog().getByRole('button', { name: 'Merge' }).click()
  await until('it is gone', () => tagsWithCounts(satchel.db).every(({ id }) => id !== first!.id))
  await page()
    .getByRole('button', { name: `Delete ${second!.name}` })
    .click()
  await dialog().getByRole('button', { name: 'Delete it' }).click()
  await until('it is gone, too', () =>
    tagsWithCounts(satchel.db).every(({ id }) => id !== second!.id),
  )
})

test('what readers see of a list is changed, and changed back', async () => {
  await page().getByRole('link', { name: 'Lists', exact: true }).click()
  const section = page().getByRole('region', { name: 'Wind notes' })
  await section.getByLabel('Readers see').fill('The wind, every Tuesday')
  await section.getByLabel('Readers see').press('Tab')
  await seen('Wind notes is changed.')
  await visitor.expectAccessible()
  expect(
    all(satchel.db, q.selectFrom('lists').select(['key', 'public_name']).orderBy('id'))[0],
  ).toEqual({ key: 'wind-notes', public_name: 'The wind, every Tuesday' })
  await page().getByRole('button', { name: 'Undo' }).last().click()
  await until(
    'it is as before',
    () =>
      one(satchel.db, q.selectFrom('lists').select('public_name').orderBy('id'))!.public_name ===
      'Wind notes',
  )
})

test('how often a list comes, who may join it, and the language of its readers are set', async () => {
  const section = page().getByRole('region', { name: 'Wind notes' })
  const list = () => one(satchel.db, q.selectFrom('lists').selectAll().orderBy('id'))!
  await section.getByLabel('How often it comes').fill('once a week')
  await section.getByLabel('How often it comes').press('Tab')
  await until('it is kept', () => list().public_often === 'once a week')
  await section.getByLabel('everybody may join it by themselves').uncheck()
  await until('nobody joins by themselves', () => list().offered === 0)
  await section.getByLabel('Its readers are spoken to in').selectOption('nl')
  await until('they are spoken to in Dutch', () => list().language === 'nl')
  await page().reload()
  await page().getByRole('link', { name: 'Lists', exact: true }).click()
  expect(await section.getByLabel('How often it comes').inputValue()).toBe('once a week')
  expect(await section.getByLabel('everybody may join it by themselves').isChecked()).toBe(false)
  expect(await section.getByLabel('Its readers are spoken to in').inputValue()).toBe('nl')
})

test('the browser’s console said no error but those that were provoked', () => {
  expect(visitor.errors.filter((error) => !/status of 422/.test(error))).toEqual([])
})
