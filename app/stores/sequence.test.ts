import { beforeEach, expect, test } from 'vitest'
import { emptyMap, insertStep } from '~~/core/sequences'
import { madeUpServer, settled } from '../made-up'
import { useSequence } from './sequence'

let server: ReturnType<typeof madeUpServer>
beforeEach(() => void (server = madeUpServer()))

const onFile = (over: object = {}) => ({
  id: 3,
  name: 'Welcome',
  state: 'draft',
  map: emptyMap,
  revision: 1,
  version: 0,
  listId: 1,
  mailings: [],
  people: [],
  problems: [],
  cautions: [],
  fields: [],
  signUps: [],
  arriving: 0,
  others: [],
  traffic: {},
  ...over,
})
async function opened(over: object = {}) {
  const store = useSequence()
  const opening = store.open(3)
  await settled()
  server.latest('/api/sequences/3').answer(onFile(over))
  await opening
  return store
}
const puts = () => server.sent.filter(({ method }) => method === 'PUT')

test('changes are kept one after the other, each over the revision that the one before made', async () => {
  const store = await opened()
  void store.set({ name: 'Hello' })
  void store.set({ listId: 2 })
  await settled()
  expect(puts().map(({ body }) => body)).toMatchObject([{ name: 'Hello', listId: 1, revision: 1 }])
  puts()[0]!.answer({ revision: 2 })
  await settled()
  expect(puts()[1]!.body).toMatchObject({ name: 'Hello', listId: 2, revision: 2 })
})

test('an answer from before a change does not take it back', async () => {
  const store = await opened()
  const asked = store.open(3)
  await settled()
  void store.set({ name: 'Hello' })
  server.latest('/api/sequences/3')
  const first = server.sent.findLast(({ method }) => method === 'GET')!
  first.answer(onFile())
  await asked
  expect(store.sequence!.name).toBe('Hello')
})

test('nor does one that was asked before the change and comes after it was kept', async () => {
  const store = await opened()
  const asked = store.open(3)
  await settled()
  const old = server.sent.findLast(({ method }) => method === 'GET')!
  void store.set({ name: 'Hello' })
  await settled()
  puts()[0]!.answer({ revision: 2 })
  await settled()
  old.answer(onFile())
  await asked
  expect(store.sequence).toMatchObject({ name: 'Hello' })
})

test('who goes from one to the next sees that one, in whichever order the answers come', async () => {
  const store = await opened()
  const [one, other] = [store.open(4), store.open(5)]
  await settled()
  server.latest('/api/sequences/4').answer(onFile({ id: 4 }))
  await one
  expect(store.sequence).toBeNull()
  server.latest('/api/sequences/5').answer(onFile({ id: 5 }))
  await other
  expect(store.sequence!.id).toBe(5)
})

test('what was changed is kept, though one has gone to another meanwhile', async () => {
  const store = await opened()
  void store.set({ name: 'Hello' })
  void store.set({ listId: 2 })
  void store.open(4)
  await settled()
  puts()[0]!.answer({ revision: 2 })
  await settled()
  expect(puts()[1]!).toMatchObject({
    path: '/api/sequences/3',
    body: { name: 'Hello', listId: 2, revision: 2 },
  })
})

test('every step can be undone and done again; a new change forgets what was undone', async () => {
  const store = await opened()
  const map = insertStep(emptyMap, null, 'pause', { kind: 'wait', ms: 5 })
  void store.set({ map })
  void store.set({ name: 'Hello' })
  void store.undo()
  expect(store.sequence).toMatchObject({ name: 'Welcome', map })
  void store.undo()
  expect(store.sequence!.map).toEqual(emptyMap)
  void store.redo()
  expect(store.line.map(({ id }) => id)).toEqual(['pause'])
  void store.set({ name: 'Else' })
  expect(store.future).toEqual([])
})

test('a template is taken over though the server was asked anew meanwhile, but not over what was drawn meanwhile', async () => {
  const store = await opened()
  const map = insertStep(emptyMap, null, 'hello', { kind: 'mail', mailingId: 9 })
  const begin = async (meanwhile: () => Promise<unknown>) => {
    const beginning = store.beginFrom({ key: 'welcome' })
    await settled()
    const asked = server.latest('/api/sequences/3/template')
    await meanwhile()
    asked.answer({ map, missing: [] })
    await settled()
    void beginning
  }
  await begin(async () => {
    const again = store.open(3)
    await settled()
    server.latest('/api/sequences/3').answer(onFile({ map: structuredClone(emptyMap) }))
    await again
  })
  expect(store.line.map(({ id }) => id)).toEqual(['hello'])
  void store.undo()
  const drawn = insertStep(emptyMap, null, 'mine', { kind: 'wait', ms: 5 })
  await begin(async () => void store.set({ map: drawn }))
  expect(store.line.map(({ id }) => id)).toEqual(['mine'])
})

test('what is drawn beside a running sequence differs until it is published or discarded; an ended one stays as it is', async () => {
  const store = await opened({ state: 'running', version: 1, published: structuredClone(emptyMap) })
  expect([store.canChange, store.differs]).toEqual([true, false])
  void store.set({ map: insertStep(emptyMap, null, 'pause', { kind: 'wait', ms: 5 }) })
  expect(store.differs).toBe(true)
  expect(store.asItRuns!.map).toEqual(emptyMap)
  void store.discard()
  expect([store.differs, store.line]).toEqual([false, []])
  void store.undo()
  expect(store.line.map(({ id }) => id)).toEqual(['pause'])
  server = madeUpServer()
  expect((await opened({ state: 'ended' })).canChange).toBe(false)
})

test('what is chosen while a step that was put in is being saved stays chosen', async () => {
  const store = await opened()
  const adding = store.addStep({ step: null, way: 0 }, 'wait')
  await settled()
  expect(store.chosen).toBe(store.line[0]!.id)
  store.chosen = 'start'
  puts()[0]!.answer({ revision: 2 })
  await settled()
  server.latest('/api/sequences/3').answer(onFile({ revision: 2, map: store.sequence!.map }))
  await adding
  expect(store.chosen).toBe('start')
})
