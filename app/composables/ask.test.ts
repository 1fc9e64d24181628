import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { nextTick, ref, type Ref } from 'vue'
import { object, string } from 'yup'
import { madeUpServer, mountedBy, settled } from '../made-up'
import { ask, useAnswer } from './ask'
import { useForm } from './form'

let server: ReturnType<typeof madeUpServer>
beforeEach(() => void (server = madeUpServer()))
afterEach(() => vi.unstubAllGlobals())

test('an answer is asked for again when something on the server changes', async () => {
  const { answer, loading } = mountedBy(() => useAnswer<number>(() => '/api/size'))
  expect(loading.value).toBe(true)
  server.latest('/api/size').answer(1)
  await settled()
  expect([answer.value, loading.value]).toEqual([1, false])
  useLive().changes++
  await nextTick()
  server.latest('/api/size').answer(2)
  await settled()
  expect(answer.value).toBe(2)
})

test('changes that come while one waits for an answer are one more question, not many', async () => {
  mountedBy(() => useAnswer<number>(() => '/api/size'))
  for (let i = 0; i < 5; i++) {
    useLive().changes++
    await nextTick()
  }
  expect(server.sent).toHaveLength(1)
  server.sent[0]!.answer(1)
  await settled()
  expect(server.sent).toHaveLength(2)
})

test('what is asked sparingly takes a tenth of the time, however often something changes', async () => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'performance'] })
  const path = () => '/api/size'
  const { answer } = mountedBy(() => useAnswer<number>(path, { sparing: true }))
  server.latest('/api/size').answer(1)
  await settled()
  const change = async () => {
    useLive().changes++
    await nextTick()
  }
  await change()
  await vi.advanceTimersByTimeAsync(0)
  expect(server.sent).toHaveLength(2)
  // The answer takes a second, so the next is asked for nine seconds later.
  await vi.advanceTimersByTimeAsync(1_000)
  server.sent[1]!.answer(2)
  await vi.advanceTimersByTimeAsync(0)
  await change()
  await vi.advanceTimersByTimeAsync(8_900)
  await change()
  expect(server.sent).toHaveLength(2)
  await vi.advanceTimersByTimeAsync(200)
  expect(server.sent).toHaveLength(3)
  server.sent[2]!.answer(3)
  await vi.advanceTimersByTimeAsync(0)
  expect(answer.value).toBe(3)
  vi.useRealTimers()
})

test('the answer to an older path is never shown', async () => {
  const id: Ref<number> = ref(1)
  const { answer } = mountedBy(() => useAnswer<string>(() => `/api/people/${id.value}`))
  id.value = 2
  await nextTick()
  server.latest('/api/people/1').answer('Tove')
  await settled()
  expect(answer.value).toBeNull()
  server.latest('/api/people/2').answer('Ambrose')
  await settled()
  expect(answer.value).toBe('Ambrose')
})

test('nothing is asked while there is no path', () => {
  mountedBy(() => useAnswer(() => null))
  expect(server.sent).toEqual([])
})

test('what was there stays while the server does not answer, and the sentence says so', async () => {
  const { answer, problem, reload } = mountedBy(() => useAnswer<number>(() => '/api/size'))
  server.latest('/api/size').answer(7)
  await settled()
  void reload()
  server.latest('/api/size').fail()
  await settled()
  expect(answer.value).toBe(7)
  expect(problem.value).toMatch(/does not answer just now/)
})

test('a refusal becomes a notice; whoever is signed out is led to the door, and back from it', async () => {
  useSession().loaded = true
  const asking = ask('/api/mailings')
  server.latest('/api/mailings').refuse(401, 'Please sign in.')
  expect(await asking).toBeNull()
  expect(server.visited).toEqual([{ path: '/sign-in', query: { to: '/mail?sort=name' } }])
  expect(useSession().loaded).toBe(false)
  // What was still under way when somebody signed out leads nowhere: not to where they were, either.
  useSession().$patch({ loaded: true, user: null })
  const late = ask('/api/people')
  server.latest('/api/people').refuse(401, 'Please sign in.')
  await late
  expect(server.visited).toHaveLength(1)
  expect(useNotices().notices).toMatchObject([{ kind: 'refused', text: 'Please sign in.' }])
})

const schema = object({ name: string().trim().required('A list needs a name.') })

test('a form is checked in the page first; nothing is sent that cannot be taken', async () => {
  const { form, faults, submit } = useForm(schema, { name: ' ' })
  const send = vi.fn()
  expect(await submit(send)).toBe(false)
  expect(send).not.toHaveBeenCalled()
  expect(faults.value).toEqual({ name: 'A list needs a name.' })
  form.name = ' Wind notes '
  expect(await submit(async (values) => send(values))).toBe(true)
  expect(send).toHaveBeenCalledWith({ name: 'Wind notes' })
  expect(faults.value).toEqual({})
})

test('the server’s faults stand under their fields, or at the foot where they have none', async () => {
  const { faults, busy, submit } = useForm(schema, { name: 'Wind' })
  const first = submit((body) => changeAt('/api/lists', { method: 'POST', body }))
  await settled()
  expect(busy.value).toBe(true)
  server.latest('/api/lists').refuse(422, 'Taken.', { name: 'There is a list of this name.' })
  expect(await first).toBe(false)
  expect(faults.value).toEqual({ name: 'There is a list of this name.' })
  const second = submit((body) => changeAt('/api/lists', { method: 'POST', body }))
  await settled()
  server.latest('/api/lists').refuse(409, 'Another import is under way.')
  await second
  expect(faults.value).toEqual({ form: 'Another import is under way.' })
  expect(busy.value).toBe(false)
})
