import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { Rule } from '~~/core/segments'
import { madeUpServer, settled } from '../made-up'
import { useSegment } from './segment'

const onList = (listId: number): Rule => ({ kind: 'list', op: 'on', listId }) as never
const all = (...of: Rule[]): Rule => ({ kind: 'all', of })
const counted = (count: number) => ({ count, lines: [], text: '', problems: [] })

let server: ReturnType<typeof madeUpServer>
beforeEach(() => {
  vi.useFakeTimers()
  server = madeUpServer()
})
afterEach(() => vi.useRealTimers())

/** A saved segment, opened, its count asked for and answered. */
async function opened(saved: object = {}) {
  const segment = useSegment()
  const opening = segment.open(3)
  server.latest('/api/segments/3').answer({
    id: 3,
    name: 'Reading lately',
    rule: all(onList(1)),
    version: 4,
    frozenAt: null,
    usedBy: { mailings: [], sequences: [], segments: [] },
    ...saved,
  })
  await settled()
  server.latest('/api/segments/vocabulary').answer({ lists: [] })
  await opening
  await vi.advanceTimersByTimeAsync(0)
  return segment
}

test('an opened segment has its rule and its count, and nothing is changed', async () => {
  const segment = await opened()
  server.latest('/api/segments/ask').answer(counted(120))
  await settled()
  expect(segment.counts).toMatchObject({ count: 120 })
  expect(segment.rule).toEqual(all(onList(1)))
  expect(segment).toMatchObject({ name: 'Reading lately', changed: false, asking: false })
})

test('changes can be had back one after the other, and made again', async () => {
  const segment = await opened()
  segment.change(all(onList(1), onList(2)))
  segment.change(all(onList(2)))
  segment.undo()
  expect(segment.rule).toEqual(all(onList(1), onList(2)))
  segment.undo()
  expect(segment.rule).toEqual(all(onList(1)))
  expect(segment.changed).toBe(false)
  segment.undo()
  expect(segment.rule).toEqual(all(onList(1)))
  segment.redo()
  segment.redo()
  segment.redo()
  expect(segment.rule).toEqual(all(onList(2)))
  segment.undo()
  segment.change(all(onList(9)))
  expect(segment.future).toEqual([])
})

test('a rule that is no group is shown as a group of one line', async () => {
  const segment = await opened()
  segment.change(onList(7))
  expect(segment.rule).toEqual(all(onList(7)))
  segment.change({ kind: 'any', of: [onList(1), onList(2)] })
  expect(segment.rule).toEqual(all({ kind: 'any', of: [onList(1), onList(2)] }))
})

test('while one edits quickly, one question is asked, about the last rule', async () => {
  const segment = await opened()
  const before = server.sent.length
  for (const listId of [2, 3, 4]) {
    segment.change(all(onList(listId)))
    await vi.advanceTimersByTimeAsync(50)
  }
  expect(server.sent).toHaveLength(before)
  await vi.advanceTimersByTimeAsync(200)
  expect(server.sent).toHaveLength(before + 1)
  expect(server.latest('/api/segments/ask').body).toEqual({ rule: all(onList(4)), segmentId: 3 })
})

test('an old answer never replaces a newer one, whichever comes first', async () => {
  const segment = await opened()
  const first = server.latest('/api/segments/ask')
  segment.change(all(onList(2)))
  await vi.advanceTimersByTimeAsync(200)
  const second = server.latest('/api/segments/ask')
  expect(first.signal?.aborted).toBe(true)
  expect(second.signal?.aborted).toBe(false)
  second.answer(counted(7))
  await settled()
  first.answer(counted(9_999))
  await settled()
  expect(segment.counts).toMatchObject({ count: 7 })
})

test('a question that fails says why, keeps the rule, and the next answer clears it', async () => {
  const segment = await opened()
  server.latest('/api/segments/ask').refuse(503, 'This takes too long to count.')
  await settled()
  expect(segment.problem).toBe('This takes too long to count.')
  expect(segment.asking).toBe(false)
  void segment.refresh()
  await vi.advanceTimersByTimeAsync(0)
  server.latest('/api/segments/ask').answer(counted(1))
  await settled()
  expect(segment.problem).toBeNull()
})

test('the past is asked for once the present is known and the hands rest', async () => {
  const segment = await opened()
  const asked = () => server.sent.filter(({ path }) => path === '/api/segments/past-sizes')
  server.latest('/api/segments/ask').answer(counted(120))
  await vi.advanceTimersByTimeAsync(300)
  segment.change(all(onList(2)))
  await vi.advanceTimersByTimeAsync(2_000)
  expect(asked()).toHaveLength(0)
  server.latest('/api/segments/ask').answer(counted(80))
  await vi.advanceTimersByTimeAsync(2_000)
  expect(asked()).toMatchObject([{ body: { rule: all(onList(2)) } }])
  segment.change(all(onList(3)))
  asked()[0]!.answer({ drawn: 600, everyone: 900, sizes: [] })
  await settled()
  expect(segment.sizes).toBeNull()
})

test('a frozen segment is asked for by its number and takes no change', async () => {
  const segment = await opened({ frozenAt: 1_790_000_000_000 })
  expect(server.latest('/api/segments/ask').body).toMatchObject({
    rule: { kind: 'segment', segmentId: 3 },
  })
  segment.change(all(onList(2)))
  expect(segment.rule).toEqual(all(onList(1)))
  expect(segment.past).toEqual([])
})

test('saving names the version that was read; the next saving names the one that came back', async () => {
  const segment = await opened()
  segment.change(all(onList(2)))
  segment.name = 'On the second list'
  const saving = segment.save()
  const put = server.latest('/api/segments/3')
  expect(put).toMatchObject({ method: 'PUT', body: { version: 4, name: 'On the second list' } })
  put.answer({ version: 5 })
  expect(await saving).toBe(3)
  expect(segment.changed).toBe(false)
  segment.name = 'And so on'
  void segment.save()
  expect(server.latest('/api/segments/3').body).toMatchObject({ version: 5 })
})

test('where somebody else saved first, both are seen, and what is chosen of them is saved over theirs', async () => {
  const segment = await opened()
  segment.change(all(onList(2)))
  const saving = segment.save()
  server.latest('/api/segments/3').refuse(412, 'Tove changed this segment meanwhile.')
  await settled()
  const theirs = { id: 3, name: 'Theirs', rule: all(onList(9)), version: 8, frozenAt: null }
  server.latest('/api/segments/3').answer(theirs)
  expect(await saving).toBeNull()
  expect(segment.rule).toEqual(all(onList(2)))
  expect(segment.changed).toBe(true)
  expect(segment.keeper!.state.value.clash).toMatchObject({
    at: ['rule'],
    mine: { rule: all(onList(2)) },
    theirs: { rule: all(onList(9)) },
  })
  segment.keeper!.keepMine()
  void segment.save()
  await settled()
  expect(server.latest('/api/segments/3').body).toMatchObject({
    version: 8,
    name: 'Theirs',
    rule: all(onList(2)),
  })
})

test('who leaves an edited segment finds it as it was left', async () => {
  const segment = await opened()
  segment.change(all(onList(2)))
  void segment.open(null)
  expect(segment.rule.of).toEqual([])
  const back = segment.open(3)
  await settled()
  server
    .latest('/api/segments/3')
    .answer({ id: 3, name: 'Keen', rule: all(onList(1)), version: 4, frozenAt: null })
  await settled()
  server.latest('/api/segments/vocabulary').answer({ lists: [] })
  await back
  expect(segment.rule).toEqual(all(onList(2)))
  expect(segment.changed).toBe(true)
  segment.discard()
  expect(segment.changed).toBe(false)
})

test('a new segment is made by its first saving', async () => {
  const segment = useSegment()
  void segment.open(null, { name: 'Town', rule: onList(5) })
  expect(segment).toMatchObject({ name: 'Town', changed: true, rule: all(onList(5)) })
  const saving = segment.save()
  server.latest('/api/segments').answer({ id: 12 })
  expect(await saving).toBe(12)
})

test('a segment that is gone says so', async () => {
  const segment = useSegment()
  const opening = segment.open(8)
  server.latest('/api/segments/8').refuse(404, 'This segment is not on file.')
  await opening
  expect(segment.problem).toBe('This segment is not on file.')
  expect(segment.saved).toBeNull()
})

test('who goes from one segment to the next sees that one, in whichever order the answers come', async () => {
  const segment = useSegment()
  void segment.open(8)
  void segment.open(9)
  const onFile = { name: 'Eight', rule: onList(5), version: 1, frozenAt: null, usedBy: {} }
  server.latest('/api/segments/9').answer({ ...onFile, id: 9, name: 'Nine' })
  await settled()
  server.latest('/api/segments/8').answer({ ...onFile, id: 8 })
  await settled()
  expect(segment.saved!.id).toBe(9)
  expect(segment.name).toBe('Nine')
})

test('before it is known what a segment is, nothing can be chosen, and nothing of it becomes a new one', async () => {
  const segment = useSegment()
  const opening = segment.open(3)
  segment.name = 'Typed too early'
  segment.change(all(onList(2)))
  expect(segment).toMatchObject({ known: false, name: '' })
  expect(await segment.save()).toBeNull()
  expect(server.sent.filter(({ method }) => method !== 'GET')).toEqual([])
  server.latest('/api/segments/3').fail()
  await opening
  const next = segment.open(null)
  await settled()
  expect(segment).toMatchObject({ known: true, name: '' })
  server.latest('/api/segments/vocabulary').answer({ lists: [] })
  await next
})
