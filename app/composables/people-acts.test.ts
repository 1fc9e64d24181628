import { beforeEach, expect, test, vi } from 'vitest'
import { madeUpServer, settled } from '../made-up'
import { usePeopleActs } from './people-acts'

let server: ReturnType<typeof madeUpServer>
beforeEach(() => void (server = madeUpServer()))

const many = Array.from({ length: 4_500 }, (_, i) => i + 1)
const asked = () => server.sent as { body: { ids: number[]; act: string } }[]
/** Answers the latest request: for all of its people something changed, but for those named. */
async function answer(except: number[] = []) {
  const { ids } = asked().at(-1)!.body
  server.sent.at(-1)!.answer({ changed: ids.filter((id) => !except.includes(id)) })
  await settled()
}
const notice = () => useNotices().notices.at(-1)!

test('many people are done in batches, one after the other, with progress', async () => {
  const changed = vi.fn()
  const acts = usePeopleActs(changed)
  void acts.act(many, { act: 'tag', tag: 'club' }, 'tagged club')
  expect(asked()).toHaveLength(1)
  expect([acts.underway.value, acts.done.value, acts.of.value]).toEqual([true, 0, 4_500])
  await answer()
  expect(acts.done.value).toBe(2_000)
  await answer()
  await answer([4_500])
  expect(asked().flatMap(({ body }) => body.ids)).toEqual(many)
  expect(acts.underway.value).toBe(false)
  expect(changed).toHaveBeenCalledTimes(1)
  expect(notice().text).toBe('4,499 people tagged club; for the others nothing changed.')
})

test('undo does the opposite for those it changed, and only for them', async () => {
  const acts = usePeopleActs(() => {})
  void acts.act([1, 2, 3], { act: 'set-aside', reason: 'asked' }, 'suppressed')
  expect(acts.underway.value).toBe(false)
  await answer([2])
  notice().action!.run()
  expect(asked().at(-1)!.body).toEqual({ ids: [1, 3], act: 'take-back', reason: 'undone' })
})

test('who was let into a sequence is taken out of that one again', async () => {
  const acts = usePeopleActs(() => {})
  void acts.act([1, 2], { act: 'let-in', sequenceId: 4 }, 'are on their way')
  await answer([1])
  notice().action!.run()
  expect(asked().at(-1)!.body).toEqual({ ids: [2], act: 'let-out', sequenceId: 4 })
})

test('stopped between two batches, it says how many were left, and what was done can be undone', async () => {
  const acts = usePeopleActs(() => {})
  void acts.act(many, { act: 'tag', tag: 'club' }, 'tagged club')
  acts.stop()
  await answer()
  expect(asked()).toHaveLength(1)
  expect(notice().text).toBe('2,000 people tagged club. 2,500 people were left as they are.')
  expect(notice().action).toBeDefined()
})

test('a batch that is refused ends it; what was done before can be undone', async () => {
  const acts = usePeopleActs(() => {})
  void acts.act(many, { act: 'list', listId: 1, reason: 'asked' }, 'put on the list')
  await answer()
  server.sent.at(-1)!.refuse(409, 'This list is gone.')
  await settled()
  expect(useNotices().notices.map(({ text }) => text)).toEqual([
    'This list is gone.',
    '2,000 people put on the list. 2,500 people were left as they are.',
  ])
})

test('where nothing was done at all, only the refusal is said', async () => {
  const changed = vi.fn()
  void usePeopleActs(changed).act([1], { act: 'tag', tag: 'x' }, 'tagged x')
  server.sent.at(-1)!.fail()
  await settled()
  expect(useNotices().notices).toHaveLength(1)
  expect(changed).not.toHaveBeenCalled()
})
