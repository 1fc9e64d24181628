import { readFileSync } from 'node:fs'
import { test, expect } from 'vitest'
import { understandFile, type FileUnderstanding } from './file'
import { asksForOrder, type ColumnPlan } from './columns'
import { interpretRow, showCell } from './rows'
import type { FieldKind } from './fields'

const known = {
  fields: [
    { key: 'first_name', name: 'First name', kind: 'text' as const },
    { key: 'last_name', name: 'Last name', kind: 'text' as const },
    { key: 'town', name: 'Town', kind: 'text' as const },
  ],
  lists: [{ id: 7, name: 'Wind notes' }],
}
const read = (name: string) =>
  new Uint8Array(readFileSync(new URL(`../../demo/files/${name}`, import.meta.url)))
const understood = (bytes: Uint8Array) => {
  const file = understandFile(bytes, bytes.length, known)
  if ('problem' in file) throw new Error(file.message)
  return file
}
const kindsOf = (file: FileUnderstanding) =>
  new Map<string, FieldKind>(
    file.plans.flatMap(({ target }) =>
      target.to === 'new-field' ? [[target.key, target.kind]] : [],
    ),
  )
const targets = (file: FileUnderstanding) =>
  file.plans.map(({ target }) =>
    target.to === 'new-field'
      ? `new ${target.kind}`
      : target.to === 'field'
        ? target.key
        : target.to,
  )

test('the club sheet is understood column by column', () => {
  const file = understood(read('club-sheet.csv'))
  expect(file.encoding).toBe('utf-8')
  expect(file.header[0]).toBe('E-mail address')
  expect(file.rows).toHaveLength(1224)
  expect(targets(file)).toEqual([
    'address',
    'first_name',
    'last_name',
    'town',
    'new date',
    'new date',
    'new choices',
    'tags',
    'list',
    'new text',
    'new text',
  ])
  expect(file.plans[4]!.dateOrder).toBe('dmy')
  expect(file.plans[6]!.separator).toBe('|')
  expect(file.plans[7]!.separator).toBe(',')
})

test('a column that is called so holds the addresses, however few of them are good', () => {
  const text = 'mail,town\na@inkpost.example,Orrin\nnobody,Orrin\nnone,Orrin\n-,Orrin\n'
  expect(targets(understood(new TextEncoder().encode(text)))).toEqual(['address', 'town'])
  const unnamed = understandFile(
    new TextEncoder().encode(text.replace('mail', 'who')),
    text.length,
    known,
  )
  expect(unnamed).toMatchObject({ problem: 'no-address' })
})

test('the rows of the club sheet that are refused or doubtful are those that should be', () => {
  const file = understood(read('club-sheet.csv'))
  const kinds = kindsOf(file)
  const refused: Record<number, string> = {}
  const doubtful: Record<number, string[]> = {}
  file.rows.forEach((row, i) => {
    const outcome = interpretRow(row, file.plans, kinds)
    if (!outcome.ok) refused[i + 2] = outcome.reason
    else if (outcome.entry.cautions.length) doubtful[i + 2] = outcome.entry.cautions
  })
  expect(refused).toEqual({
    34: 'This is not an address: it has more than one @.',
    179: 'The part before the @ is longer than 64 characters.',
    456: 'The part before the @ has letters that many mail servers refuse (not ASCII).',
    540: 'There is no address in this row.',
    1012: 'This is not an address: it has no @.',
  })
  expect(doubtful).toEqual({ 1089: ['“31/02/2021” in Member since is not a date; left empty.'] })
})

test('line breaks, quotes and formulas in cells stay what they are', () => {
  const file = understood(read('club-sheet.csv'))
  const remarks = new Set(file.rows.map((row) => row[9]))
  expect(remarks).toContain('Two lines\r\nof note')
  expect(remarks).toContain('Says "call me"')
  expect(remarks).toContain('=HYPERLINK("http://x.test")')
})

test('the festival desk file: Windows-1252, semicolons, decimal commas, whole names', () => {
  const file = understood(read('festival-desk.csv'))
  expect(file.encoding).toBe('windows-1252')
  expect(file.delimiter).toBe(';')
  expect(targets(file)).toEqual([
    'whole-name',
    'address',
    'new text',
    'new number',
    'new date',
    'new choices',
  ])
  const outcomes = file.rows.map((row) => interpretRow(row, file.plans, kindsOf(file)))
  expect(outcomes.filter((outcome) => !outcome.ok)).toHaveLength(1) // the total line
  const first = outcomes[0]!
  expect(first.ok && first.entry.values).toEqual({
    first_name: 'Halvard',
    last_name: 'Prynne-Marsh',
    place: 'Stannow',
    spent: 13.69,
    signed: '2026-09-10',
    wants: ['offers'],
  })
  const second = outcomes[1]!
  expect(second.ok && second.entry.values.first_name).toBe('Ümit')
})

const bytes = (text: string) => new TextEncoder().encode(text)
test.each([
  ['empty', new Uint8Array()],
  ['not-text', new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 13, 1, 2, 3])],
  ['header-only', bytes('mail,name\r\n')],
  ['no-address', bytes('name,town\nOrla,Orrin\nIvo,Stannow\n')],
  ['too-many-columns', bytes(Array.from({ length: 300 }, (_, i) => `c${i}`).join(',') + '\n1\n')],
])('a file that is %s is refused with a sentence', (problem, content) => {
  const answer = understandFile(content, content.length, known)
  expect(answer).toMatchObject({ problem })
  expect('message' in answer && answer.message).toMatch(/\.$/)
})

test('a row longer than the header is refused, a shorter one is read', () => {
  const file = understood(bytes('mail,town\na@b.example,Orrin\nc@d.example,Orrin,x\ne@f.example\n'))
  const outcomes = file.rows.map((row) => interpretRow(row, file.plans, kindsOf(file)))
  expect(outcomes.map((outcome) => outcome.ok)).toEqual([true, false, true])
})

test('UTF-16 with its mark is read', () => {
  const text = '\ufeffmail\ttown\nþóra@x.example\tOrrin\nora@x.example\tHale Point\n'
  const utf16 = new Uint8Array(new Uint16Array([...text].map((c) => c.charCodeAt(0))).buffer)
  const file = understood(utf16)
  expect(file.encoding).toBe('utf-16le')
  expect(file.header).toEqual(['mail', 'town'])
})

const file = (...lines: string[]) => bytes(`${lines.join('\n')}\n`)

test('lines before the header are left out and named, and the sign that a first line names is believed', () => {
  const one = understood(
    file(
      'sep=;',
      'Members of the club;;',
      '',
      'mail;town;wind notes',
      'a@b.example;Orrin, east;yes',
      'c@d.example;;',
    ),
  )
  expect(one.delimiter).toBe(';')
  expect(one.table).toEqual({ row: 4, firstRow: 5 })
  expect(one.before.map(({ row, cells }) => [row, cells[0]])).toEqual([
    [1, 'sep='],
    [2, 'Members of the club'],
  ])
  expect(targets(one)).toEqual(['address', 'town', 'list'])
  expect(one.rows).toHaveLength(2)
})

test('a file without a header is noticed by its first row, and loses nobody', () => {
  const one = understood(file('ann@b.example,Ann,Orrin', 'bo@d.example,Bo,Stannow'))
  expect(one.table).toEqual({ row: 0, firstRow: 1 })
  expect(one.rows.map((row) => row[1])).toEqual(['Ann', 'Bo'])
  expect(targets(one)).toEqual(['address', 'skip', 'skip'])
  expect(one.plans.map(({ header }) => header)).toEqual(['Column 1', 'Column 2', 'Column 3'])
  const title = understood(file('Our members', 'ann@b.example', 'bo@d.example'))
  expect(title.table).toEqual({ row: 1, firstRow: 2 })
})

test('somebody who knows better says where the header is, and what stands between cells', () => {
  const content = file(
    'list of all,who,where',
    'mail,name,town',
    'ann@b.example,Ann,Orrin',
    'bo@b.example,Bo,Orrin',
    'cy@b.example,Cy,Hale',
  )
  const guessed = understood(content)
  expect(guessed.table.row).toBe(1)
  const told = understandFile(content, content.length, known, { headerRow: 2 })
  expect(told).toMatchObject({ table: { row: 2, firstRow: 3 }, header: ['mail', 'name', 'town'] })
  const none = understandFile(content, content.length, known, { headerRow: 0 })
  expect(none).toMatchObject({ table: { row: 0, firstRow: 1 } })
  const piped = understandFile(bytes('mail|x;y\na@b.example|1;2\n'), 27, known, { delimiter: '|' })
  expect(piped).toMatchObject({ header: ['mail', 'x;y'] })
})

test('separators at the end of lines and carriage returns are no cells', () => {
  const one = understood(bytes('mail,town,,\r\na@b.example,Orrin,,\r\nc@d.example,Stannow,,,\r\n'))
  expect(one.header).toEqual(['mail', 'town'])
  expect(one.rows.map((row) => row[1])).toEqual(['Orrin', 'Stannow'])
  const kinds = kindsOf(one)
  expect(one.rows.map((row) => interpretRow(row, one.plans, kinds).ok)).toEqual([true, true])
  const old = understood(bytes('mail\ttown\ra@b.example\tOrrin\rc@d.example\tHale\r'))
  expect(old.rows).toEqual([
    ['a@b.example', 'Orrin'],
    ['c@d.example', 'Hale'],
  ])
})

test('columns are known by the names that people give them', () => {
  const header = 'Courriel,Given,Family,City,D.O.B.,Mobile,Geburtstag'
  const row = 'a@b.example,Ann,Orrin,Hale,3 Mar 1990,07700900123,4. Mai 1991'
  const one = understood(file(header, row, row.replace('a@', 'b@')))
  expect(targets(one)).toEqual([
    'address',
    'first_name',
    'last_name',
    'town',
    'new date',
    'new text',
    'new date',
  ])
  const outcome = interpretRow(one.rows[0]!, one.plans, kindsOf(one))
  expect(outcome.ok && outcome.entry.values).toMatchObject({
    d_o_b: '1990-03-03',
    mobile: '07700900123',
    geburtstag: '1991-05-04',
  })
})

test('dates that only somebody who knows can read are not guessed', () => {
  const one = understood(file('mail,joined', 'a@b.example,03/04/2024', 'c@d.example,05/06/2024'))
  const kindOf = (key: string) => kindsOf(one).get(key)
  expect(one.plans[1]).toMatchObject({ target: { to: 'new-field', kind: 'date' } })
  expect(one.plans[1]!.dateOrder).toBeUndefined()
  expect(asksForOrder(one.plans[1]!, kindOf)).toBe(true)
  expect(asksForOrder({ ...one.plans[1]!, dateOrder: 'mdy' }, kindOf)).toBe(false)
})

test('the name beside an address counts where no column has one', () => {
  const one = understood(file('mail,town', '"Ann Orrin <a@b.example>",Hale', 'c@d.example,Hale'))
  const outcome = interpretRow(one.rows[0]!, one.plans, kindsOf(one))
  expect(outcome.ok && outcome.entry).toMatchObject({
    normal: 'a@b.example',
    values: { first_name: 'Ann', last_name: 'Orrin', town: 'Hale' },
  })
})

test('a sample shows what it will become', () => {
  const plan = (target: ColumnPlan['target'], more: Partial<ColumnPlan> = {}): ColumnPlan => ({
    column: 0,
    header: 'x',
    samples: [],
    target,
    ...more,
  })
  const kinds = new Map<string, FieldKind>([['since', 'date']])
  const shown = (of: ColumnPlan, cell: string) => showCell(of, cell, kinds)
  expect(shown(plan({ to: 'field', key: 'since' }, { dateOrder: 'mdy' }), '3/4/24')?.text).toBe(
    '2024-03-04',
  )
  expect(shown(plan({ to: 'field', key: 'since' }), '3/4/24')).toEqual({
    text: 'day or month first?',
    problem: true,
  })
  expect(shown(plan({ to: 'field', key: 'since' }), '2024-04-03')?.text).toBe('2024-04-03')
  expect(shown(plan({ to: 'field', key: 'since' }, { dateOrder: 'mdy' }), 'soon')).toEqual({
    text: 'not a date; left empty',
    problem: true,
  })
  expect(shown(plan({ to: 'whole-name' }), 'Ann van der Orrin')?.text).toBe('Ann | van der Orrin')
  expect(shown(plan({ to: 'tags' }, { separator: ';' }), '"a"; b')?.text).toBe('a · b')
  expect(shown(plan({ to: 'list', listId: 7 }), 'opted in')?.text).toBe('joins')
  expect(shown(plan({ to: 'address' }), 'nobody')).toMatchObject({ problem: true })
  expect(shown(plan({ to: 'skip' }), 'x')).toBeNull()
})
