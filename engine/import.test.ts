import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import fc from 'fast-check'
import { beforeEach, expect, test } from 'vitest'
import { understandFile } from '../core/people'
import { emptyMap, insertStep } from '../core/sequences'
import { all, q, run, type Database } from '../database'
import {
  erasePerson,
  readFields,
  personDetails,
  valuesOf,
  changePerson,
  suppressPeople,
  tagPeople,
  changeSubscription,
  subscriptionState,
} from '../database/people'
import {
  countNotices,
  createImport,
  importById,
  importNotices,
  leaveOut,
  updateImport,
} from '../database/imports'
import { addJob, cancelJob, jobById, jobsDied, takeJob } from '../database/jobs'
import { madeUpAccount, somebody } from '../database/made-up'
import { addSequence, sequenceById, startSequence } from '../database/sequences'
import { addSegment } from '../database/segments'
import { openNames } from '../world/names/server'
import type { Engine } from './engine'
import { runJobs } from './jobs'
import { madeUpEngine } from './made-up'
import { runSequences } from './run-sequences'

let db: Database
let list: number
let engine: Engine & { time: { now: number } }
let files = 0
beforeEach(() => {
  ;({ db, list } = madeUpAccount())
  engine = madeUpEngine(db)
})

type Choices = Partial<Parameters<typeof createImport>[1]>

/** Puts a file in its place, as it was understood; the import's id. */
function bring(content: string | Uint8Array, choices: Choices = {}): number {
  const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : content
  const path = join(engine.settings.data, `file-${files++}.csv`)
  writeFileSync(path, bytes)
  const lists = all(db, q.selectFrom('lists').select(['id', 'name']))
  const file = understandFile(bytes, bytes.length, { fields: readFields(db), lists })
  if ('problem' in file) throw new Error(file.message)
  return createImport(
    db,
    {
      name: 'people.csv',
      path,
      size: bytes.length,
      encoding: file.encoding,
      delimiter: file.delimiter,
      table: file.table,
      plans: file.plans,
      listId: list,
      statement: 'They ticked the box at the festival desk.',
      ...choices,
    },
    engine.time.now,
  )
}

async function carryOut(kind: 'import' | 'preview-import' | 'undo-import', importId: number) {
  const job = addJob(db, kind, { importId }, engine.time.now)
  if (kind === 'import') updateImport(db, importId, { job_id: job })
  expect(await runJobs(engine)).toBe(true)
  expect(jobById(db, job)).toMatchObject({ error: null })
  return importById(db, importId)!
}

const countsOf = (of: {
  added: number
  changed: number
  unchanged: number
  repeated: number
  refused: number
  never_mail: number
  skipped: number
}) => ({
  added: of.added,
  changed: of.changed,
  unchanged: of.unchanged,
  repeated: of.repeated,
  refused: of.refused,
  never_mail: of.never_mail,
  skipped: of.skipped,
})
const person = (normal: string) => {
  const row = all(db, q.selectFrom('people').selectAll().where('normal', '=', normal))[0]
  return row ? { ...row, values: valuesOf(row), details: personDetails(db, row.id)! } : null
}

test('nothing to do is nothing done', async () => {
  expect(await runJobs(engine)).toBe(false)
})

test('every row of the festival desk’s sheet comes out as it should', async () => {
  const bytes = readFileSync(new URL('../demo/files/festival-desk.csv', import.meta.url))
  const id = bring(bytes, { tag: 'festival' })
  const done = await carryOut('import', id)
  const lines = new TextDecoder('windows-1252').decode(bytes).split('\r\n')
  const rows = lines.map((line, i) => ({ row: i + 1, cells: line.split(';') })).slice(1)
  const people = rows.filter(({ cells }) => cells[1]?.includes('@'))
  for (const { cells } of people) {
    const [name, mail, place = '', spent = '', signed = '', wants = ''] = cells
    const words = name!.trim().split(' ').filter(Boolean)
    const [day, month, year] = signed.split('.')
    const expected = {
      first_name: words.length > 1 ? words.slice(0, -1).join(' ') : words[0],
      last_name: words.length > 1 ? words.at(-1) : undefined,
      place: place || undefined,
      spent: spent ? Number(spent.replace(',', '.')) : undefined,
      signed: signed ? `20${year}-${month!.padStart(2, '0')}-${day!.padStart(2, '0')}` : undefined,
      wants: wants ? wants.split('+') : undefined,
    }
    expect(person(mail!)?.values, mail).toEqual(JSON.parse(JSON.stringify(expected)))
    expect(person(mail!)?.details.tags, mail).toEqual(['festival'])
  }
  expect(people.length).toBeGreaterThan(295)
  expect(countsOf(done)).toEqual({
    added: people.length,
    changed: 0,
    unchanged: 0,
    repeated: 0,
    refused: 1,
    never_mail: 0,
    skipped: 0,
  })
  const total = rows.find(({ cells }) => cells[0] === 'Total')!
  expect(importNotices(db, id, 'refused')).toMatchObject([
    { row: total.row, reason: 'This is not an address: it has no @.' },
  ])
})

test('every row of the club’s sheet comes out as it should', async () => {
  const text = readFileSync(new URL('../demo/files/club-sheet.csv', import.meta.url), 'utf8')
  const id = bring(readFileSync(new URL('../demo/files/club-sheet.csv', import.meta.url)))
  const done = await carryOut('import', id)
  // A reader of its own for quoted cells, so that a fault of the importer's can't hide in both.
  const rows: string[][] = [[]]
  for (const [, quoted, plain, end] of text
    .slice(1)
    .matchAll(/(?:"((?:[^"]|"")*)"|([^",\r\n]*))(,|\r\n|$)/g)) {
    rows.at(-1)!.push(quoted !== undefined ? quoted.replaceAll('""', '"') : plain!)
    if (end === '\r\n') rows.push([])
    if (end === '') break
  }
  const body = rows.slice(1).filter((cells) => cells.length > 1)
  expect(body).toHaveLength(1224)
  const refusedRows = [34, 179, 456, 540, 1012]
  expect(importNotices(db, id, 'refused').map(({ row }) => row)).toEqual(refusedRows)
  const latest = new Map<string, string[]>()
  const asWritten = (address: string) =>
    address.trim().toLowerCase().replace('bücher.example', 'xn--bcher-kva.example')
  const yes = ['yes', 'y', 'true', '1', 'x']
  body.forEach((cells, i) => {
    if (!refusedRows.includes(i + 2)) latest.set(asWritten(cells[0]!), cells)
  })
  expect(done.added).toBe(latest.size)
  expect(done.added + done.repeated + done.refused).toBe(1224)
  expect(done.repeated).toBe(15)
  let joined = 0
  for (const [normal, cells] of latest) {
    const found = person(normal)!
    const [, first, last, town, , , flies, labels, wind] = cells
    if (first) expect(found.values.first_name, normal).toBe(first.trim().normalize('NFC'))
    if (last) expect(found.values.last_name, normal).toBe(last.trim().normalize('NFC'))
    if (town) expect(found.values.town, normal).toBe(town.trim())
    if (flies) expect(found.values.flies, normal).toEqual(flies.split('|'))
    for (const label of labels!.split(',').filter((one) => one.trim()))
      expect(found.details.tags, normal).toContain(label.trim())
    if (yes.includes(wind!.trim().toLowerCase())) joined++
  }
  expect(joined).toBeGreaterThan(100)
})

test.each(['utf-8', 'utf-16le', 'utf-16be', 'windows-1252'] as const)(
  'a file in %s is read in pieces without losing a letter',
  async (encoding) => {
    const lines = Array.from({ length: 9_000 }, (_, i) => `s${i}@inkpost.example,Søren ${i},Ærø`)
    const text = `mail,name,place\r\n${lines.join('\r\n')}`
    const bytes =
      encoding === 'utf-8'
        ? Buffer.from(text)
        : encoding === 'windows-1252'
          ? Buffer.from(text, 'latin1')
          : Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from(text, 'utf16le')])
    if (encoding === 'utf-16be') bytes.swap16()
    const done = await carryOut('import', bring(bytes))
    expect(done).toMatchObject({ encoding, added: 9_000, refused: 0 })
    for (const i of [0, 4_321, 8_999])
      expect(person(`s${i}@inkpost.example`)?.values).toEqual({
        first_name: 'Søren',
        last_name: String(i),
        place: 'Ærø',
      })
  },
)

test('consent is never widened: who left stays gone, who is suppressed stays suppressed', async () => {
  const left = somebody(db, 'left', { list })
  changeSubscription(db, left, list, 'unsubscribed', { act: 'person', way: 'link' }, 5)
  const aside = somebody(db, 'aside')
  suppressPeople(db, [aside], 'asked us to', 6)
  const gone = somebody(db, 'gone')
  erasePerson(db, gone, 7)
  while (await runJobs(engine));
  const id = bring(
    'mail\nleft@inkpost.example\naside@inkpost.example\ngone@inkpost.example\nnew@inkpost.example\n',
  )
  const done = await carryOut('import', id)
  expect(countsOf(done)).toMatchObject({ added: 1, never_mail: 2, refused: 1 })
  expect(subscriptionState(db, left, list)).toBe('unsubscribed')
  expect(importNotices(db, id, 'refused')).toMatchObject([
    { row: 4, reason: expect.stringContaining('erased at their wish') },
  ])
})

test('add only, update only, and what an empty cell does', async () => {
  somebody(db, 'tove', { values: { town: 'Orrin' } })
  run(db, q.insertInto('fields').values({ key: 'town', name: 'Town', kind: 'text', position: 0 }))
  const csv = 'mail,town\ntove@inkpost.example,\nivo@inkpost.example,Stannow\n'
  const add = await carryOut('import', bring(csv, { mode: 'add' }))
  expect(countsOf(add)).toMatchObject({ added: 1, skipped: 1 })
  const update = await carryOut(
    'import',
    bring(`${csv}orla@inkpost.example,x\n`, { mode: 'update' }),
  )
  // Tove was on file, and joins the list.
  expect(countsOf(update)).toMatchObject({ added: 0, skipped: 1, changed: 1, unchanged: 1 })
  expect(person('tove@inkpost.example')?.values).toEqual({ town: 'Orrin' })
  const clear = await carryOut('import', bring(csv, { clearEmpty: true }))
  expect(countsOf(clear)).toMatchObject({ changed: 1, unchanged: 1 })
  expect(person('tove@inkpost.example')?.values).toEqual({})
})

test('an import that an engine left in the middle goes on behind its last batch', async () => {
  const rows = Array.from({ length: 6_000 }, (_, i) => `r${i % 5_900}@inkpost.example,T${i}`)
  const id = bring(`mail,town\n${rows.join('\n')}\n`)
  const job = addJob(db, 'import', { importId: id }, 0)
  takeJob(db, 'dead', ['dead'])
  // The first engine dies when its second batch is asked for.
  let batches = 0
  const dying: Engine = {
    ...engine,
    id: 'dead',
    clock: () => {
      if (++batches > 1) throw new Error('killed')
      return engine.time.now
    },
  }
  run(db, q.updateTable('jobs').set({ state: 'waiting' }).where('id', '=', job))
  await expect(async () => runJobs(dying)).rejects.toThrow('killed')
  expect(importById(db, id)).toMatchObject({ rows: 2_500 })
  run(db, q.updateTable('jobs').set({ state: 'running', engine: 'dead' }).where('id', '=', job))
  expect(await runJobs(engine)).toBe(true)
  expect(importById(db, id)).toMatchObject({
    state: 'done',
    rows: 6_000,
    added: 5_900,
    repeated: 100,
  })
  expect(person('r99@inkpost.example')?.values).toEqual({ town: 'T5999' })
})

test('a cancelled import stops at a batch and says so', async () => {
  const rows = Array.from({ length: 6_000 }, (_, i) => `r${i}@inkpost.example`)
  const id = bring(`mail\n${rows.join('\n')}\n`)
  cancelJob(db, addJob(db, 'import', { importId: id }, 0))
  expect(await runJobs(engine)).toBe(true)
  expect(importById(db, id)).toMatchObject({ state: 'cancelled', added: 2_500 })
})

test('a quotation mark that is never closed fails with a sentence, and what came before is kept', async () => {
  const rows = Array.from({ length: 3_000 }, (_, i) => `s${i}@inkpost.example,Ilse`)
  const endless = `late@inkpost.example,"${'never closed, '.repeat(200_000)}`
  const id = bring(['mail,name', ...rows, endless].join('\n'))
  const job = addJob(db, 'import', { importId: id }, engine.time.now)
  updateImport(db, id, { job_id: job })
  await runJobs(engine)
  expect(jobById(db, job)).toMatchObject({
    state: 'failed',
    error: expect.stringMatching(/never be closed.*“late@inkpost.example/) as string,
  })
  expect(importById(db, id)!).toMatchObject({ state: 'failed', added: 2_500 })
})

test('a job at which its process ended twice fails with its reason, and is not begun a third time', async () => {
  const id = bring('mail\ntove@inkpost.example')
  const job = addJob(db, 'import', { importId: id }, engine.time.now)
  updateImport(db, id, { job_id: job })
  for (const dead of ['first', 'second']) {
    takeJob(db, dead, [dead])
    jobsDied(db, dead)
  }
  await runJobs(engine)
  expect(jobById(db, job)).toMatchObject({
    state: 'failed',
    error: expect.stringMatching(/ended twice/) as string,
  })
  expect(importById(db, id)).toMatchObject({ state: 'failed', added: 0 })
})

test('a file that is gone fails with a reason', async () => {
  const id = bring('mail\nr@inkpost.example\n')
  run(db, q.updateTable('imports').set({ path: '/nowhere.csv' }).where('id', '=', id))
  const job = addJob(db, 'import', { importId: id }, 0)
  expect(await runJobs(engine)).toBe(true)
  expect(jobById(db, job)).toMatchObject({
    state: 'failed',
    error: expect.stringMatching(/ENOENT/),
  })
  expect(importById(db, id)).toMatchObject({ state: 'failed' })
})

const cell = fc.constantFrom('', 'Orrin', 'Stannow')
const someRows = fc.array(
  fc.tuple(
    fc.constantFrom('a', 'b', 'c', 'D', 'd', 'left', 'aside', 'nobody at all'),
    cell,
    fc.constantFrom('', 'club', 'club|press'),
  ),
  { minLength: 1, maxLength: 14 },
)
const someChoices = fc.record({
  mode: fc.constantFrom('both' as const, 'add' as const, 'update' as const),
  clearEmpty: fc.boolean(),
  tag: fc.constantFrom(null, 'june'),
})
const csvOf = (rows: [string, string, string][]) =>
  // The first rows tell what the columns are; they are about somebody else.
  `mail,town,tags\nz1@inkpost.example,Orrin,club|press\nz2@inkpost.example,Orrin,club\n${rows
    .map(
      ([name, town, tags]) =>
        `${name}${name.includes(' ') ? '' : '@inkpost.example'},${town},${tags}`,
    )
    .join('\n')}\n`

function beginAnew() {
  ;({ db, list } = madeUpAccount())
  engine = madeUpEngine(db)
  run(db, q.insertInto('fields').values({ key: 'town', name: 'Town', kind: 'text', position: 0 }))
  somebody(db, 'a', { values: { town: 'Orrin' }, list })
  somebody(db, 'b')
  const left = somebody(db, 'left', { list })
  changeSubscription(db, left, list, 'unsubscribed', { act: 'person', way: 'link' }, 5)
  suppressPeople(db, [somebody(db, 'aside', { list })], 'asked', 6)
}

test('what is counted before is what comes out after', async () => {
  await fc.assert(
    fc.asyncProperty(someRows, someChoices, async (rows, choices) => {
      beginAnew()
      const id = bring(csvOf(rows), choices)
      const before = all(db, q.selectFrom('people').selectAll())
      const counted = await carryOut('preview-import', id)
      expect(all(db, q.selectFrom('people').selectAll())).toEqual(before)
      const { counts } = JSON.parse(counted.preview!) as { counts: ReturnType<typeof countsOf> }
      expect(countsOf(await carryOut('import', id))).toEqual(counts)
    }),
    { numRuns: 60 },
  )
})

/** All that an import may change, as people would tell it. */
const snapshot = () => ({
  people: all(
    db,
    q
      .selectFrom('people')
      .select(['normal', 'first_name', 'last_name', 'fields'])
      .orderBy('normal'),
  ),
  tags: all(
    db,
    q
      .selectFrom('person_tags')
      .innerJoin('tags', 'tags.id', 'person_tags.tag_id')
      .select(['person_id', 'tags.name'])
      .orderBy('person_id')
      .orderBy('tags.name'),
  ),
  subscriptions: all(
    db,
    q.selectFrom('subscriptions').select(['person_id', 'list_id', 'state']).orderBy('person_id'),
  ),
})

test('undoing puts everything back as it was', async () => {
  await fc.assert(
    fc.asyncProperty(someRows, someChoices, async (rows, choices) => {
      beginAnew()
      const before = snapshot()
      const id = bring(csvOf(rows), choices)
      await carryOut('import', id)
      await carryOut('undo-import', id)
      expect(snapshot()).toEqual(before)
      expect(importById(db, id)).toMatchObject({ state: 'undone' })
    }),
    { numRuns: 60 },
  )
})

test('undoing keeps what happened since', async () => {
  beginAnew()
  const id = bring(
    csvOf([
      ['a', 'Stannow', ''],
      ['b', 'Stannow', ''],
      ['new', 'Orrin', ''],
    ]),
  )
  await carryOut('import', id)
  const a = person('a@inkpost.example')!
  const fresh = person('new@inkpost.example')!
  changePerson(db, a.id, { values: { town: 'Gull Harbour' } }, engine.time.now + 1)
  changeSubscription(
    db,
    fresh.id,
    list,
    'unsubscribed',
    { act: 'person', way: 'link' },
    engine.time.now + 2,
  )
  const undone = await carryOut('undo-import', id)
  expect(JSON.parse(undone.undone!)).toMatchObject({ kept: 1, removed: 2 })
  expect(person('a@inkpost.example')?.values).toEqual({ town: 'Gull Harbour' })
  expect(person('b@inkpost.example')?.values).toEqual({})
  expect(subscriptionState(db, fresh.id, list)).toBe('unsubscribed')
})

test('undoing takes nobody away who came since, though whom it had brought are gone', async () => {
  beginAnew()
  const id = bring(csvOf([['new', 'Orrin', '']]))
  await carryOut('import', id)
  erasePerson(db, person('new@inkpost.example')!.id, engine.time.now)
  while (await runJobs(engine));
  const other = somebody(db, 'other')
  await carryOut('undo-import', id)
  expect(person('other@inkpost.example')?.id).toBe(other)
})

test('counting says which sequences could start, and for whom; they start only where the import may', async () => {
  const sequence = addSequence(db, 'Welcome', list, 0)
  const map = insertStep(emptyMap, null, 'pause', { kind: 'wait', ms: 1_000 })
  run(db, q.updateTable('sequences').set({ map: JSON.stringify(map) }))
  startSequence(db, sequenceById(db, sequence)!, engine.time.now)
  somebody(db, 'on', { list })
  somebody(db, 'known')
  const left = somebody(db, 'left', { list })
  changeSubscription(db, left, list, 'unsubscribed', { act: 'person', way: 'link' }, 1)
  while ((await runSequences(engine)) === true);
  const rows = 'mail\n'.concat(
    ...['on', 'known', 'left', 'new', 'new', 'newer'].map((name) => `${name}@inkpost.example\n`),
  )
  const counted = await carryOut('preview-import', bring(rows))
  expect(JSON.parse(counted.preview!)).toMatchObject({
    counts: { added: 2, repeated: 1, never_mail: 1 },
    sequences: [{ id: sequence, name: 'Welcome', people: 3 }],
  })
  const inside = () => all(db, q.selectFrom('enrolments').select('person_id')).length
  const before = inside()
  await carryOut('import', bring(rows))
  await runSequences(engine)
  expect(inside()).toBe(before)
  const others = bring('mail\nfourth@inkpost.example\nfifth@inkpost.example\n')
  updateImport(db, others, { starts_sequences: 1 })
  await carryOut('import', others)
  await runSequences(engine)
  expect(inside()).toBe(before + 2)
})

test('lines before the header are nobody, and of a file without one nobody is lost', async () => {
  const under = 'sep=;\r\nAll members;;\r\n\r\nmail;town\r\n\r\na@inkpost.example;Orrin\r\n'
  const titled = await carryOut('import', bring(under))
  expect(titled).toMatchObject({ rows: 1, added: 1, refused: 0, header_row: 4, first_row: 5 })
  const bare = await carryOut('import', bring('b@inkpost.example,Bo\nc@inkpost.example,Cy\n'))
  expect(bare).toMatchObject({ rows: 2, added: 2, header_row: 0, first_row: 1 })
  expect(readFields(db).map(({ key }) => key)).toEqual(['first_name', 'last_name', 'town'])
})

test('of repeated rows the last counts, or the first where that is chosen', async () => {
  const csv = (name: string) =>
    `mail,town\n${name}@inkpost.example,Orrin\n${name}@inkpost.example,Hale\n`
  for (const [name, repeats, town] of [
    ['one', 'last', 'Hale'],
    ['two', 'first', 'Orrin'],
  ] as const) {
    const id = bring(csv(name), { repeats })
    const counted = await carryOut('preview-import', id)
    const done = await carryOut('import', id)
    expect(countsOf(done)).toMatchObject({ added: 1, repeated: 1 })
    expect(JSON.parse(counted.preview!).counts).toEqual(countsOf(done))
    expect(person(`${name}@inkpost.example`)?.values.town).toBe(town)
  }
})

test('who gets a tag or joins a list is changed, in the preview as in the writing', async () => {
  somebody(db, 'tove', { list })
  somebody(db, 'ivo')
  const csv = 'mail,tags\ntove@inkpost.example,\nivo@inkpost.example,press\n'
  const first = bring(csv)
  const counted = await carryOut('preview-import', first)
  const done = await carryOut('import', first)
  expect(countsOf(done)).toMatchObject({ changed: 1, unchanged: 1 })
  expect(JSON.parse(counted.preview!).counts).toEqual(countsOf(done))
  const again = bring(csv, { tag: 'desk' })
  const countedAgain = await carryOut('preview-import', again)
  const doneAgain = await carryOut('import', again)
  expect(countsOf(doneAgain)).toMatchObject({ changed: 2, unchanged: 0 })
  expect(JSON.parse(countedAgain.preview!).counts).toEqual(countsOf(doneAgain))
})

test('every refused and doubtful row is kept by counting, and those left out are not written', async () => {
  const rows = Array.from({ length: 300 }, (_, i) => `nobody${i},Hale`)
  const csv = `mail,town\n${rows.join('\n')}\ninfo@inkpost.example,Orrin\nsales@inkpost.example,Orrin\nok@inkpost.example,Orrin\n`
  const id = bring(csv)
  await carryOut('preview-import', id)
  expect(countNotices(db, id)).toEqual({ refused: 300, doubtful: 2, leftOut: 0 })
  expect(importNotices(db, id, 'refused', { after: 299, limit: 5 }).map(({ row }) => row)).toEqual([
    300, 301,
  ])
  leaveOut(db, id, 303, true)
  leaveOut(db, id, 5, true)
  expect(countNotices(db, id)).toMatchObject({ doubtful: 2, leftOut: 1 })
  expect(countsOf(await carryOut('import', id))).toMatchObject({
    added: 2,
    skipped: 1,
    refused: 300,
  })
  expect(person('sales@inkpost.example')).toBeNull()
  expect(person('info@inkpost.example')).not.toBeNull()
  expect(countNotices(db, id)).toEqual({ refused: 300, doubtful: 2, leftOut: 1 })
})

test('undone, an import takes the fields and tags with it that nothing else uses', async () => {
  const csv = 'mail,Kites,Colour,tags\ntove@inkpost.example,4,red,new;asked;kept\n'
  const id = bring(csv, { tag: 'desk' })
  await carryOut('import', id)
  const tagId = (name: string) =>
    all(db, q.selectFrom('tags').select('id').where('name', '=', name))[0]?.id
  const asked = { kind: 'tagged', tagId: tagId('asked')! } as const
  addSegment(db, 'Asked', asked, 0)
  somebody(db, 'other', { values: { colour: 'blue' } })
  tagPeople(db, [somebody(db, 'third')], tagId('kept')!, true)
  const undone = await carryOut('undo-import', id)
  expect(JSON.parse(undone.undone!)).toMatchObject({ removed: 1, made: 3 })
  expect(readFields(db).map(({ key }) => key)).toEqual(['first_name', 'last_name', 'colour'])
  expect(['new', 'asked', 'kept', 'desk'].map((name) => tagId(name) !== undefined)).toEqual([
    false,
    true,
    true,
    false,
  ])
})

test('people know the import they came by', async () => {
  somebody(db, 'tove')
  const id = bring('mail\ntove@inkpost.example\nnew@inkpost.example\n')
  await carryOut('import', id)
  expect(person('new@inkpost.example')).toMatchObject({ source: `import:${id}` })
  expect(person('tove@inkpost.example')).toMatchObject({ source: null })
})

test('domains that are thrown away, or take no mail, are doubtful; where nobody answers nothing is said', async () => {
  const zone = join(engine.settings.data, 'zone.json')
  writeFileSync(
    zone,
    JSON.stringify({
      'textonly.example': { TXT: ['x'] },
      'host.example': { A: ['192.0.2.1'] },
      'null.example': { MX: ['.'] },
    }),
  )
  const names = openNames(zone)
  await new Promise<void>((done) => names.bind(0, '127.0.0.1', done))
  const csv = `mail\n${['inkpost.example', 'host.example', 'gone.example', 'textonly.example', 'null.example', 'mailinator.com'].map((domain) => `a@${domain}`).join('\n')}\n`
  engine.settings.nameServer = `127.0.0.1:${names.address().port}`
  const id = bring(csv)
  await carryOut('preview-import', id)
  names.close()
  expect(importNotices(db, id, 'doubtful').map(({ row, reason }) => [row, reason])).toEqual([
    [4, 'gone.example takes no mail, name servers say.'],
    [5, 'textonly.example takes no mail, name servers say.'],
    [6, 'null.example takes no mail, name servers say.'],
    [7, expect.stringMatching(/^Addresses at mailinator.com are thrown away after use\./)],
  ])
  // Nobody listens there any more, and what was not asked before is not known.
  const later = bring('mail\na@unheard.example\n')
  await carryOut('preview-import', later)
  expect(importNotices(db, later, 'doubtful')).toEqual([])
})
