import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { blocksOf, emptyLetter, startingLetter } from '~~/core/letters'
import { richText } from '~~/core/letters/rich-text'
import { madeUpServer, settled } from '../made-up'
import { useMailing } from './mailing'

let server: ReturnType<typeof madeUpServer>
beforeEach(() => {
  vi.useFakeTimers({ now: 1_790_000_000_000 })
  server = madeUpServer()
})
afterEach(() => vi.useRealTimers())

const onFile = (letter: object = {}) => ({
  id: 5,
  name: 'Wind notes 48',
  state: 'draft',
  started_at: null,
  list_id: 1,
  lists: [
    { id: 1, name: 'Wind notes', subscribers: 900 },
    { id: 2, name: 'Offers', subscribers: 40 },
  ],
  segmentIds: [],
  leftOutIds: [],
  joinedWithinDays: null,
  pastCap: false,
  letterheadId: null,
  settingsVersion: 'a',
  waterfall: [
    { what: 'audience', left: 900 },
    { what: 'consent', left: 880 },
  ],
  letter: { ...emptyLetter(), version: 1, ...letter },
})

async function opened(mailing: object = onFile()) {
  const store = useMailing()
  const opening = store.open(5)
  await settled()
  server.latest('/api/mailings/5').answer(mailing)
  await settled()
  server
    .latest('/api/mailings/5/proof')
    .answer({ marks: [{ level: 'blocker' }, { level: 'warning' }] })
  await opening
  return store
}

/** Lets the half second before saving pass and answers the saving. */
async function saved(version: number) {
  await vi.advanceTimersByTimeAsync(600)
  const put = server.latest('/api/mailings/5/letter')
  put.answer({ version })
  await settled()
  return put
}

test('an opened mailing knows its letter, its marks and how many it goes to', async () => {
  const store = await opened()
  expect(store.letter?.subject).toBe('')
  expect(store).toMatchObject({ blockers: 1, eligible: 880, canChange: true, saving: 'saved' })
})

test('what waits to be saved goes when the page does; what is saved does not go again', async () => {
  const store = await opened()
  store.leave()
  expect(server.sent.some(({ method }) => method === 'PUT')).toBe(false)
  store.setSubject('Wind')
  store.leave()
  expect(server.latest('/api/mailings/5/letter')).toMatchObject({
    method: 'PUT',
    body: { subject: 'Wind', version: 1 },
  })
})

test('what is typed in one go is one step of undo; another field is another', async () => {
  const store = await opened()
  for (const subject of ['W', 'Wi', 'Wind']) store.setSubject(subject)
  store.setPreviewText('This week')
  expect(store.past).toHaveLength(2)
  store.undo()
  expect(store.letter).toMatchObject({ subject: 'Wind', previewText: '' })
  store.undo()
  expect(store.letter?.subject).toBe('')
  store.undo()
  store.redo()
  store.redo()
  store.redo()
  expect(store.letter).toMatchObject({ subject: 'Wind', previewText: 'This week' })
})

test('after a pause, typing on is a new step', async () => {
  const store = await opened()
  store.setSubject('Wind')
  vi.setSystemTime(Date.now() + 5_000)
  store.setSubject('Wind notes')
  store.undo()
  expect(store.letter?.subject).toBe('Wind')
})

test('blocks are inserted, changed, copied, moved and removed, and each can be undone', async () => {
  const store = await opened()
  const kinds = () => blocksOf(store.letter!.document).map(({ kind }) => kind)
  store.insert(0, 'heading')
  store.insert(1, 'button')
  expect(kinds()).toEqual(['heading', 'button', 'footer'])
  expect(store.chosenBlock).toMatchObject({ kind: 'button' })
  store.update(store.chosen!, { label: 'Read the forecast' })
  expect(store.chosenBlock).toMatchObject({ label: 'Read the forecast' })
  store.duplicate(1)
  expect(kinds()).toEqual(['heading', 'button', 'button', 'footer'])
  expect(new Set(blocksOf(store.letter!.document).map(({ id }) => id)).size).toBe(4)
  store.move(0, 2)
  expect(kinds()).toEqual(['button', 'button', 'heading', 'footer'])
  store.remove(store.chosen!)
  expect(kinds()).toEqual(['button', 'heading', 'footer'])
  expect(store.chosen).toBeNull()
  for (let i = 0; i < 6; i++) store.undo()
  expect(store.letter).toEqual({ subject: '', previewText: '', document: emptyLetter().document })
})

test('settings are those of the chosen block and row, the same ones while only words change', async () => {
  const store = await opened()
  store.insert(0, 'heading')
  const { settledBlock, settledRow } = store
  store.update(store.chosen!, { text: richText('Wind') })
  expect(store.chosenBlock).toMatchObject({ text: richText('Wind') })
  expect(store.settledBlock).toBe(settledBlock)
  expect(store.settledRow).toBe(settledRow)
  store.update(store.chosen!, { level: 2 })
  expect(store.settledBlock).toMatchObject({ level: 2, text: richText('Wind') })
  store.setColumns(store.chosenRow!.id, 2)
  expect(store.settledRow!.columns).toHaveLength(2)
  store.undo()
  expect(store.settledRow!.columns).toHaveLength(1)
})

test('a change is saved by itself, once, half a second after the last key', async () => {
  const store = await opened()
  for (const subject of ['W', 'Wi', 'Win']) {
    store.setSubject(subject)
    await vi.advanceTimersByTimeAsync(200)
  }
  expect(server.sent.some(({ method }) => method === 'PUT')).toBe(false)
  expect(store.saving).toBe('waiting')
  const put = await saved(2)
  expect(put.body).toMatchObject({ subject: 'Win', version: 1 })
  expect(store.saving).toBe('saved')
})

test('what is typed while a saving is under way is saved after it, on the version that came back', async () => {
  const store = await opened()
  store.setSubject('Wind')
  await vi.advanceTimersByTimeAsync(600)
  store.setSubject('Wind notes')
  await vi.advanceTimersByTimeAsync(600)
  expect(server.sent.filter(({ method }) => method === 'PUT')).toHaveLength(1)
  server.latest('/api/mailings/5/letter').answer({ version: 2 })
  await settled()
  const put = await saved(3)
  expect(put.body).toMatchObject({ subject: 'Wind notes', version: 2 })
})

test('what is typed while the proof is being asked is saved in its own time', async () => {
  const store = await opened()
  store.setSubject('Wind')
  await saved(2)
  expect(server.latest('/api/mailings/5/proof').method).toBe('GET') // and has no answer yet
  store.setSubject('Wind on Sunday')
  expect(await saved(3)).toMatchObject({ body: { subject: 'Wind on Sunday', version: 2 } })
  expect(store.saving).toBe('saved')
})

test('a saving that fails says so and keeps the words', async () => {
  const store = await opened()
  store.setSubject('Wind')
  await vi.advanceTimersByTimeAsync(600)
  server.latest('/api/mailings/5/letter').fail()
  await settled()
  expect(store.saving).toBe('failed')
  expect(store.letter?.subject).toBe('Wind')
  expect(useNotices().notices[0]?.text).toMatch(
    /^The letter is not saved\. Satchel does not answer/,
  )
})

/** The server says how the mailing stands. */
async function told(store: Awaited<ReturnType<typeof opened>>, letter: object) {
  const asking = store.refresh()
  server.latest('/api/mailings/5').answer(onFile(letter))
  await settled()
  server.latest('/api/mailings/5/proof').answer({ marks: [] })
  await asking
}

test('what somebody else changed comes beside what is unsaved here, and stays when that is undone', async () => {
  const store = await opened()
  store.setSubject('Mine')
  await told(store, { previewText: 'Theirs', version: 2 })
  expect(store.letter).toMatchObject({ subject: 'Mine', previewText: 'Theirs' })
  const put = await saved(3)
  expect(put.body).toMatchObject({ subject: 'Mine', previewText: 'Theirs', version: 2 })
  store.undo()
  expect(store.letter).toMatchObject({ subject: '', previewText: 'Theirs' })
})

test('where both changed the same words, mine stand and it is said', async () => {
  const store = await opened()
  store.setSubject('Mine')
  await told(store, { subject: 'Theirs', version: 2 })
  expect(store.letter?.subject).toBe('Mine')
  expect(useNotices().notices[0]?.text).toMatch(/theirs are in the history/)
})

test('who was slower saving joins and saves again', async () => {
  const store = await opened()
  store.setSubject('Mine')
  await vi.advanceTimersByTimeAsync(600)
  server.latest('/api/mailings/5/letter').refuse(412, 'Somebody else was faster.')
  await settled()
  server.latest('/api/mailings/5').answer(onFile({ previewText: 'Theirs', version: 2 }))
  await settled()
  server.latest('/api/mailings/5/proof').answer({ marks: [] })
  await settled()
  const put = await saved(3)
  expect(put.body).toMatchObject({ subject: 'Mine', previewText: 'Theirs', version: 2 })
  expect(store.saving).toBe('saved')
})

test('who learns of the faster one before the refusal comes saves again, too', async () => {
  const store = await opened()
  store.setSubject('Mine')
  await vi.advanceTimersByTimeAsync(600)
  await told(store, { previewText: 'Theirs', version: 2 })
  // Longer than one waits before saving: that saving is the one under way.
  await vi.advanceTimersByTimeAsync(2_000)
  server.latest('/api/mailings/5/letter').refuse(412, 'Somebody else was faster.')
  await settled()
  const put = await saved(3)
  expect(put.body).toMatchObject({ subject: 'Mine', previewText: 'Theirs', version: 2 })
  expect(store.saving).toBe('saved')
})

test('what is corrected while it is being refused is saved after it', async () => {
  const store = await opened()
  store.setSubject('Much too long')
  await vi.advanceTimersByTimeAsync(600)
  const refused = server.latest('/api/mailings/5/letter')
  store.setSubject('Short')
  await vi.advanceTimersByTimeAsync(2_000)
  refused.refuse(422, 'Too long.')
  await settled()
  const put = await saved(2)
  expect(put.body).toMatchObject({ subject: 'Short', version: 1 })
  expect(store.saving).toBe('saved')
})

test('my own saving that comes back before its answer is nobody else’s', async () => {
  const store = await opened()
  store.setSubject('Mine')
  await vi.advanceTimersByTimeAsync(600)
  await told(store, { subject: 'Mine', version: 2 })
  server.latest('/api/mailings/5/letter').answer({ version: 2 })
  await settled()
  await vi.advanceTimersByTimeAsync(2_000)
  expect(store.letter?.subject).toBe('Mine')
  expect(server.sent.filter(({ method }) => method === 'PUT')).toHaveLength(1)
  store.undo()
  expect(store.letter?.subject).toBe('')
})

test('what somebody else wrote on top of a saving of mine that has no answer yet is theirs alone', async () => {
  const store = await opened()
  store.setSubject('Mine')
  await vi.advanceTimersByTimeAsync(600)
  await told(store, { subject: 'Mine', previewText: 'Theirs', version: 3 })
  server.latest('/api/mailings/5/letter').answer({ version: 2 })
  await settled()
  store.undo()
  expect(store.letter).toMatchObject({ subject: '', previewText: 'Theirs' })
})

test('a mailing that went out can’t be changed', async () => {
  const store = await opened({ ...onFile(), started_at: 1 })
  store.setSubject('Too late')
  expect(store.letter?.subject).toBe('')
  expect(store.canChange).toBe(false)
})

test('opening another mailing first saves what waits, then forgets the undo of the first', async () => {
  const store = await opened(onFile({ ...startingLetter(), version: 1 }))
  store.setSubject('Wind')
  const opening = store.open(6)
  await settled()
  server.latest('/api/mailings/5/letter').answer({ version: 2 })
  await settled()
  server.latest('/api/mailings/5/proof').answer({ marks: [] })
  await settled()
  server.latest('/api/mailings/6').answer({ ...onFile(), id: 6 })
  await settled()
  server.latest('/api/mailings/6/proof').answer({ marks: [] })
  await opening
  expect(store.mailing?.id).toBe(6)
  expect(store.past).toEqual([])
})

test('who goes from one mailing to the next sees that one, in whichever order the answers come', async () => {
  const store = await opened()
  const [one, other] = [store.open(6), store.open(7)]
  await settled()
  server.latest('/api/mailings/7').answer({ ...onFile(), id: 7 })
  await settled()
  server.latest('/api/mailings/7/proof').answer({ marks: [] })
  await other
  await one
  expect(server.sent.filter(({ path }) => path === '/api/mailings/6')).toEqual([])
  void store.open(8)
  void store.refresh()
  await settled()
  const slow = server.latest('/api/mailings/8')
  void store.open(9)
  await settled()
  slow.answer({ ...onFile(), id: 8 })
  await settled()
  expect(store.mailing).toBeNull()
  server.latest('/api/mailings/9').answer({ ...onFile(), id: 9 })
  await settled()
  expect(store.mailing!.id).toBe(9)
})

test('a setting that was chosen stays as chosen while the server has taken it and the mailing is not read anew yet', async () => {
  const store = await opened()
  void store.set({ joinedWithinDays: 2, listId: 2 })
  const shown = { joinedWithinDays: 2, list_id: 2, list: 'Offers' }
  expect(store.mailing).toMatchObject(shown)
  const put = server.sent.findLast(({ method }) => method === 'PUT')!
  const { version: _, ...value } = put.body as Record<string, unknown>
  put.answer({ settings: value, settingsVersion: 'b', version: 'b', value })
  await settled()
  // It is asked for anew, and nobody has answered that.
  expect(server.latest('/api/mailings/5').method).toBe('GET')
  expect(store.mailing).toMatchObject(shown)
})

test('who may only read changes nothing, and nothing is sent', async () => {
  const store = await opened()
  useSession().user!.role = 'viewer'
  expect(store.canChange).toBe(false)
  const before = server.sent.length
  store.setSubject('Other')
  await vi.advanceTimersByTimeAsync(5_000)
  expect(store.letter!.subject).not.toBe('Other')
  expect(server.sent.slice(before).filter(({ method }) => method !== 'GET')).toEqual([])
})
