import { readFileSync } from 'node:fs'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { understandFile, type ColumnPlan } from '../core/people'
import { all, one, q } from '../database'
import { countPeople, changeSubscription, suppress, subscriptionState } from '../database/people'
import { install, signIn, until, type Installation } from './installation'

let satchel: Installation
let ask: Awaited<ReturnType<typeof signIn>>
beforeAll(async () => {
  satchel = await install()
  await Promise.all([satchel.start('web'), satchel.start('engine')])
  ask = await signIn(satchel)
})
afterAll(() => satchel.stop())

const clubSheet = () => new Uint8Array(readFileSync('demo/files/club-sheet.csv'))
async function plansFor(
  bytes: Uint8Array,
): Promise<{ plans: ColumnPlan[]; delimiter: string; encoding: string }> {
  const { fields, lists } = (await ask('GET', '/api/people/overview')).body
  const found = understandFile(bytes, bytes.length, { fields, lists })
  if ('problem' in found)
    return {
      plans: [{ column: 0, header: 'x', samples: [], target: { to: 'address' } }],
      delimiter: ',',
      encoding: 'utf-8',
    }
  return found
}
async function bring(bytes: Uint8Array, more: object = {}) {
  const { file } = (await ask('POST', '/api/imports/file', bytes)).body
  const { plans, delimiter, encoding } = await plansFor(bytes)
  return ask('POST', '/api/imports', {
    file,
    name: 'people.csv',
    plans,
    delimiter,
    encoding,
    listId: null,
    statement: 'Ticked on the sheet.',
    consented: true,
    ...more,
  })
}
async function report(id: number) {
  await until(
    'the import is over',
    async () =>
      !['waiting', 'running', 'counting'].includes(
        (await ask('GET', `/api/imports/${id}`)).body.state,
      ),
  )
  return (await ask('GET', `/api/imports/${id}`)).body
}

async function rowsOf(id: number, verdict: string): Promise<number[]> {
  const { body } = await ask('GET', `/api/imports/${id}/rows?verdict=${verdict}`)
  return body.rows.map(({ row }: { row: number }) => row)
}

test('the club sheet comes in row by row as it should', async () => {
  const { body } = await bring(clubSheet())
  const first = await report(body.id)
  expect(first).toMatchObject({
    state: 'done',
    rows: 1224,
    added: 1204,
    repeated: 15,
    refused: 5,
    changed: 0,
    unchanged: 0,
  })
  expect(first.noticed).toEqual({ refused: 5, doubtful: 3, leftOut: 0 })
  expect(await rowsOf(body.id, 'refused')).toEqual([34, 179, 456, 540, 1012])
  expect(await rowsOf(body.id, 'doubtful')).toEqual([243, 385, 1089])
  expect(countPeople(satchel.db)).toBe(1204)
  const ines = one(
    satchel.db,
    q.selectFrom('people').selectAll().where('normal', '=', 'ines3@oldmill.example'),
  )!
  expect(ines).toMatchObject({ first_name: 'Inês', last_name: 'Dunmarrow' })
  expect(JSON.parse(ines.fields)).toMatchObject({
    town: 'Stannow',
    member_since: '2022-07-16',
    till_no: '6884',
  })
  expect(subscriptionState(satchel.db, ines.id, 1)).toBe('subscribed')
  const says = all(
    satchel.db,
    q.selectFrom('evidence').select(['way', 'way_ref', 'state']).where('person_id', '=', ines.id),
  )
  expect(says).toEqual([{ way: 'import', way_ref: String(body.id), state: 'subscribed' }])
  const no = one(
    satchel.db,
    q.selectFrom('subscriptions').select((eb) => eb.fn.countAll<number>().as('n')),
  )!.n
  expect(no).toBeGreaterThan(600)
  expect(no).toBeLessThan(1204)
})

test('what would happen is counted before, exactly, and nothing is written by counting', async () => {
  const before = JSON.stringify(all(satchel.db, q.selectFrom('people').selectAll()))
  const { body } = await bring(clubSheet(), { preview: true })
  const counted = await report(body.id)
  expect(counted.state).toBe('counted')
  expect(counted.preview.counts).toEqual({
    added: 0,
    changed: 0,
    unchanged: 1204,
    repeated: 15,
    refused: 5,
    never_mail: 0,
    skipped: 0,
  })
  expect(await rowsOf(body.id, 'refused')).toHaveLength(5)
  expect(JSON.stringify(all(satchel.db, q.selectFrom('people').selectAll()))).toBe(before)
  expect((await ask('POST', `/api/imports/${body.id}/start`)).status).toBe(200)
  expect((await ask('POST', `/api/imports/${body.id}/start`)).status).toBe(409)
  const { preview, ...done } = await report(body.id)
  expect(done).toMatchObject({ state: 'done', ...preview.counts })
})

const csv = (...lines: string[]) => new Uint8Array(Buffer.from(`${lines.join('\n')}\n`))
const personOf = (normal: string) =>
  one(satchel.db, q.selectFrom('people').selectAll().where('normal', '=', normal))

test('an import is undone exactly, and what happened since is kept', async () => {
  await report(
    (
      await bring(
        csv('Mail,First name,Town', 'old@undo.example,Old,Orrin', 'again@undo.example,Again,Orrin'),
      )
    ).body.id,
  )
  const file = csv(
    'Mail,First name,Town',
    'old@undo.example,Changed,Merewick',
    'again@undo.example,Changed,Merewick',
    'new@undo.example,New,Orrin',
    'bought@undo.example,Buyer,Orrin',
  )
  const { body } = await bring(file, {
    listId: 1,
    consented: true,
    statement: 'Asked at the desk.',
    tag: 'desk 2026',
  })
  expect(await report(body.id)).toMatchObject({ added: 2, changed: 2 })
  const again = personOf('again@undo.example')!.id
  await ask('PUT', `/api/people/${again}`, { values: { town: 'Stannow' } })
  const bought = personOf('bought@undo.example')!.id
  satchel.db.sqlite
    .prepare("insert into orders (number, person_id, at, money) values ('U-1', ?, 1, 500)")
    .run(bought)
  expect((await ask('POST', `/api/imports/${body.id}/undo`)).status).toBe(200)
  await until(
    'it is undone',
    async () => (await ask('GET', `/api/imports/${body.id}`)).body.state === 'undone',
  )
  expect((await ask('GET', `/api/imports/${body.id}`)).body.undone).toEqual({
    removed: 1,
    kept: 1,
    putBack: 2,
    made: 0,
  })
  const [old, since] = [personOf('old@undo.example')!, personOf('again@undo.example')!]
  expect([old.first_name, JSON.parse(old.fields).town]).toEqual(['Old', 'Orrin'])
  // The town was changed again since, so only the name goes back.
  expect([since.first_name, JSON.parse(since.fields).town]).toEqual(['Again', 'Stannow'])
  expect(personOf('new@undo.example')).toBeUndefined()
  for (const id of [old.id, since.id, bought])
    expect(subscriptionState(satchel.db, id, 1)).toBeNull()
  const tags = all(
    satchel.db,
    q.selectFrom('person_tags').select('person_id').where('person_id', 'in', [old.id, since.id]),
  )
  expect(tags).toEqual([])
  expect((await ask('POST', `/api/imports/${body.id}/undo`)).status).toBe(409)
})

test('one may only add, or only update, and empty cells may take values away', async () => {
  await report((await bring(csv('Mail,Town', 'there@mode.example,Orrin'))).body.id)
  const file = csv('Mail,Town', 'there@mode.example,Merewick', 'fresh@mode.example,Merewick')
  expect(await report((await bring(file, { mode: 'add' })).body.id)).toMatchObject({
    added: 1,
    skipped: 1,
    changed: 0,
  })
  expect(JSON.parse(personOf('there@mode.example')!.fields).town).toBe('Orrin')
  const more = csv('Mail,Town', 'there@mode.example,', 'other@mode.example,Orrin')
  const update = await bring(more, { mode: 'update', clearEmpty: true })
  expect(await report(update.body.id)).toMatchObject({ added: 0, skipped: 1, changed: 1 })
  expect(JSON.parse(personOf('there@mode.example')!.fields)).not.toHaveProperty('town')
  expect(personOf('other@mode.example')).toBeUndefined()
})

test('brought in again nothing changes, and nobody who left or is suppressed comes back', async () => {
  const people = all(
    satchel.db,
    q.selectFrom('subscriptions').select('person_id').where('list_id', '=', 1).limit(2),
  )
  changeSubscription(
    satchel.db,
    people[0]!.person_id,
    1,
    'unsubscribed',
    { act: 'person', way: 'unsubscribe page' },
    Date.now(),
  )
  suppress(
    satchel.db,
    people[1]!.person_id,
    'complained',
    'Reported a mailing as spam.',
    Date.now(),
  )
  const { body } = await bring(clubSheet())
  const again = await report(body.id)
  expect(again).toMatchObject({ added: 0, changed: 0, repeated: 15, refused: 5, never_mail: 2 })
  expect(again.unchanged + again.never_mail).toBe(1204)
  expect(subscriptionState(satchel.db, people[0]!.person_id, 1)).toBe('unsubscribed')
})

test('refused rows come out as CSV with their reason, harmless in a spreadsheet', async () => {
  const { body } = await bring(
    new TextEncoder().encode('mail,remark\nok@inkpost.example,fine\nnobody,=1+1\n'),
  )
  await report(body.id)
  const csv = (await ask('GET', `/api/imports/${body.id}/rows.csv?verdict=refused`)).body as string
  expect(csv).toContain('mail,remark,Row,Reason')
  expect(csv).toContain(`nobody,"'=1+1",3,This is not an address: it has no @.`)
})

test('an import that an engine dies in is finished by the next, and no row is taken twice', async () => {
  const rows = Array.from({ length: 60_000 }, (_, i) => `far${i}@inkpost.example,Reader ${i},Orrin`)
  const { body } = await bring(
    new TextEncoder().encode(`mail,first name,town\n${rows.join('\n')}\n`),
  )
  const written = () =>
    one(satchel.db, q.selectFrom('imports').select('rows').where('id', '=', body.id))!.rows
  await until('some rows are written', () => written() >= 3_000)
  await satchel.kill('engine')
  expect(written()).toBeLessThan(60_000)
  await satchel.start('engine')
  expect(await report(body.id)).toMatchObject({
    state: 'done',
    rows: 60_000,
    added: 60_000,
    repeated: 0,
    changed: 0,
  })
})

test('a file is asked about, and taken as somebody says who knows it', async () => {
  const bare = csv('one@asked.example,03/04/2024', 'two@asked.example,05/06/2024')
  const plans = (dateOrder?: string) => [
    { target: { to: 'address' } },
    { target: { to: 'new-field', key: 'since', name: 'Since', kind: 'date' }, dateOrder },
  ]
  expect(await bring(bare, { headerRow: 0, plans: plans() })).toMatchObject({
    status: 422,
    body: { message: 'Say how the dates in Column 2 are read: day first, or month first.' },
  })
  const { body } = await bring(bare, { headerRow: 0, plans: plans('mdy') })
  expect(await report(body.id)).toMatchObject({ state: 'done', added: 2, header_row: 0 })
  expect(JSON.parse(personOf('one@asked.example')!.fields)).toEqual({ since: '2024-03-04' })
})

test('rows are left out between counting and writing, and not after', async () => {
  const rows = csv('mail,town', 'info@left.example,Orrin', 'sales@left.example,Orrin')
  const { body } = await bring(rows, { preview: true })
  expect((await report(body.id)).noticed).toMatchObject({ doubtful: 2, leftOut: 0 })
  const leave = (row: number | null, out: boolean) =>
    ask('PUT', `/api/imports/${body.id}/rows`, { row, out })
  expect((await leave(null, true)).body).toMatchObject({ leftOut: 2 })
  expect((await leave(3, false)).body).toMatchObject({ leftOut: 1 })
  expect((await ask('GET', `/api/imports/${body.id}/head`)).status).toBe(200)
  await ask('POST', `/api/imports/${body.id}/start`)
  expect(await report(body.id)).toMatchObject({ added: 1, skipped: 1 })
  expect(personOf('info@left.example')).toBeUndefined()
  expect((await leave(3, true)).status).toBe(409)
})

test('people join a list only with a statement of how they agreed', async () => {
  const file = new TextEncoder().encode('mail\nnew@inkpost.example\n')
  const unsaid = { statement: '', consented: false }
  expect(await bring(file, { listId: 1, ...unsaid })).toMatchObject({
    status: 422,
    body: { message: expect.stringMatching(/agreed/) },
  })
  // A column of yes and no puts people on a list as well.
  const column = new TextEncoder().encode('mail,Wind notes\nnew@inkpost.example,yes\n')
  expect(await bring(column, unsaid)).toMatchObject({
    status: 422,
    body: { message: expect.stringMatching(/agreed/) },
  })
  const { status, body } = await bring(file, {
    listId: 1,
    consented: true,
    statement: 'Asked at the stall.',
  })
  expect(status).toBe(200)
  await report(body.id)
  const person = one(
    satchel.db,
    q.selectFrom('people').select('id').where('normal', '=', 'new@inkpost.example'),
  )!
  const evidence = one(
    satchel.db,
    q
      .selectFrom('evidence')
      .innerJoin('wordings', 'wordings.id', 'evidence.wording_id')
      .select('wordings.text')
      .where('person_id', '=', person.id),
  )
  expect(evidence?.text).toBe('Asked at the stall.')
})

test.each([
  ['no text', new Uint8Array(4_000).map((_, i) => (i * 37) % 256), /not text/],
  ['nothing', new Uint8Array([10]), /no|nobody|empty/i],
  ['a header only', new TextEncoder().encode('mail,name\n'), /nobody to import/],
  ['no address column', new TextEncoder().encode('name\nOrla\nIvo\n'), /None of the 1 columns/],
  [
    '300 columns',
    new TextEncoder().encode(
      `${Array.from({ length: 300 }, (_, i) => `c${i}`).join()}\na@b.example\n`,
    ),
    /300 columns/,
  ],
])('a file with %s gets a sentence and writes nothing', async (_, bytes, sentence) => {
  const before = [
    countPeople(satchel.db),
    all(satchel.db, q.selectFrom('imports').select('id')).length,
  ]
  const { status, body } = await bring(bytes)
  expect(status).toBe(422)
  expect(body.message).toMatch(sentence)
  expect([
    countPeople(satchel.db),
    all(satchel.db, q.selectFrom('imports').select('id')).length,
  ]).toEqual(before)
})

test('a file of 200 MB is taken to the disk and the server stays up', async () => {
  const row =
    'big@inkpost.example,Somebody with a long remark that fills the line of this file,Orrin\n'
  const bytes = new Uint8Array(Buffer.alloc(200 * 1024 * 1024, row))
  const { status, body } = await ask('POST', '/api/imports/file', bytes)
  expect([status, body.size]).toEqual([200, bytes.length])
  expect((await ask('GET', '/api/health')).status).toBe(200)
})

test('malformed requests answer 422 with the field and the reason', async () => {
  expect(await ask('POST', '/api/lists', { name: ' ' })).toMatchObject({
    status: 422,
    body: { data: { fields: { name: 'Give the list a name.' } } },
  })
  expect(
    (
      await ask('POST', '/api/imports', {
        file: '../../../etc/passwd',
        name: 'x',
        encoding: 'utf-8',
        delimiter: ',',
        plans: [{}],
        listId: null,
      })
    ).status,
  ).toBe(422)
  expect(
    (await ask('PUT', '/api/account', { name: 'A\r\nBcc: x@y.example' })).body.data.fields.name,
  ).toMatch(/line breaks/)
})
