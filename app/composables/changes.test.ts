import { beforeEach, expect, test, vi } from 'vitest'
import { madeUpServer, settled } from '../made-up'
import { changeAt, keeperOf, thingOf } from './changes'

let server: ReturnType<typeof madeUpServer>
beforeEach(() => void (server = madeUpServer()))

interface Plan {
  pace: string
  test: string | null
}
const path = '/api/mailings/5/plan'
const planOf5 = () =>
  keeperOf<Plan>(path, () => ({
    of: '/api/mailings/5',
    load: () => request<{ value: Plan; version: string }>(path),
    save: (plan, version) => changeAt(path, { method: 'PUT', body: { plan, version } }),
  }))
const puts = () => server.sent.filter(({ method }) => method === 'PUT')
const plain: Plan = { pace: 'at-once', test: null }

async function known() {
  const keeper = planOf5()
  const loading = keeper.reload()
  server.latest(path).answer({ value: plain, version: 'a' })
  await loading
  return keeper
}

test('what a path is about', () => {
  expect(thingOf('/api/mailings/12/plan')).toBe('/api/mailings/12')
  expect(thingOf('/api/mailings/12?n=3')).toBe('/api/mailings/12')
  expect(thingOf('/api/words')).toBe('/api/words')
})

test('a choice is shown at once, saved, and nothing is settled before the server has it', async () => {
  const keeper = planOf5()
  expect([keeper.shown(), keeper.settled()]).toEqual([null, false])
  const loading = keeper.reload()
  server.latest(path).answer({ value: plain, version: 'a' })
  await loading
  expect(useUnsaved().isSettled('/api/mailings/5')).toBe(true)
  keeper.choose({ ...plain, pace: 'widening' })
  expect(keeper.shown()!.pace).toBe('widening')
  expect(useUnsaved().isSettled('/api/mailings/5')).toBe(false)
  puts()[0]!.answer({ value: { ...plain, pace: 'widening' }, version: 'b' })
  await settled()
  expect(useUnsaved().isSettled('/api/mailings/5')).toBe(true)
})

test('two quick choices are both kept: the second goes over what the first became', async () => {
  const keeper = await known()
  keeper.choose({ ...plain, test: 'subject' })
  keeper.choose({ ...keeper.shown()!, pace: 'widening' })
  // An answer from before them takes nothing back.
  const late = keeper.reload()
  server.latest(path).answer({ value: plain, version: 'a' })
  await late
  expect(keeper.shown()).toEqual({ pace: 'widening', test: 'subject' })
  expect(puts()).toHaveLength(1)
  puts()[0]!.answer({ value: { ...plain, test: 'subject' }, version: 'b' })
  await settled()
  expect(puts()[1]!.body).toEqual({ plan: { pace: 'widening', test: 'subject' }, version: 'b' })
})

test('what is chosen in the moment in which it is heard, or in which a saving ends, is saved', async () => {
  const keeper = await known()
  keeper.hear(keeper.asks(), { value: plain, version: 'a' })
  keeper.choose({ ...plain, pace: 'widening' })
  expect(puts()).toHaveLength(1)
  void keeper.flush().then(() => keeper.choose({ ...plain, pace: 'best-hour' }))
  puts()[0]!.answer({ value: { ...plain, pace: 'widening' }, version: 'b' })
  await settled()
  expect(puts()[1]!.body).toMatchObject({ plan: { pace: 'best-hour' }, version: 'b' })
})

test('what the server refuses stays, is said, and holds what would send it', async () => {
  const keeper = await known()
  keeper.choose({ ...plain, pace: 'widening' })
  puts()[0]!.refuse(422, 'This draft is gone.')
  await settled()
  expect(keeper.shown()!.pace).toBe('widening')
  expect(await useUnsaved().settle('/api/mailings/5')).toBe('This draft is gone.')
})

test('a line that breaks is tried again by itself', async () => {
  vi.useFakeTimers()
  const keeper = await known()
  keeper.choose({ ...plain, pace: 'widening' })
  puts()[0]!.fail()
  await settled()
  expect(useUnsaved().problemWith('/api/mailings/5')).toMatch(/does not answer/)
  await vi.advanceTimersByTimeAsync(3_100)
  expect(puts()).toHaveLength(2)
  puts()[1]!.answer({ value: { ...plain, pace: 'widening' }, version: 'b' })
  await settled()
  expect(useUnsaved().isSettled('/api/mailings/5')).toBe(true)
  vi.useRealTimers()
})

test('where somebody else changed the same, both are seen; whoever had saved first sees it, too', async () => {
  const keeper = await known()
  keeper.choose({ ...plain, pace: 'widening' })
  puts()[0]!.refuse(412, 'Somebody else was faster.')
  await settled()
  server.latest(path).answer({ value: { ...plain, pace: 'best-hour' }, version: 'b' })
  await settled()
  expect(keeper.state.value.clash).toMatchObject({ at: ['pace'] })
  expect(await useUnsaved().settle('/api/mailings/5')).toMatch(/Choose between the two/)
  keeper.keepMine()
  puts()[1]!.answer({ value: { ...plain, pace: 'widening' }, version: 'c' })
  await settled()
  const later = keeper.reload()
  server.latest(path).answer({ value: { ...plain, pace: 'at-once' }, version: 'd' })
  await later
  expect(keeper.shown()!.pace).toBe('at-once')
  expect(keeper.overtaken.value).toMatchObject({ at: ['pace'], mine: { pace: 'widening' } })
  keeper.putMineBack()
  expect(puts()[2]!.body).toMatchObject({ plan: { pace: 'widening' }, version: 'd' })
})

test('what changes one thing goes one after the other, whatever the first takes; other things do not wait', async () => {
  void changeAt('/api/mailings/5/plan', { method: 'PUT', body: {} })
  void changeAt('/api/mailings/5/dispatch', { method: 'POST', body: {} })
  void changeAt('/api/mailings/6/plan', { method: 'PUT', body: {} })
  await settled()
  expect(server.sent.map((one) => one.path)).toEqual([
    '/api/mailings/5/plan',
    '/api/mailings/6/plan',
  ])
  server.latest('/api/mailings/5/plan').refuse(422, 'No.')
  await settled()
  expect(server.sent.at(-1)!.path).toBe('/api/mailings/5/dispatch')
})

/** What the server says of something sensitive when the password was not given for long. */
const wantsPassword = () =>
  Object.assign(new Error('no'), { statusCode: 403, data: { data: { confirm: true } } })

test('something sensitive asks for the password, and is done once it was given', async () => {
  const confirming = useConfirming()
  const done = changeAt('/api/tokens', { method: 'POST', body: { name: 'Shop' } })
  server.latest('/api/tokens').failWith(wantsPassword())
  await settled()
  expect(confirming.asked).toBe(true)
  expect(useUnsaved().isSettled('/api/tokens')).toBe(false)
  confirming.end(true)
  await settled()
  const asked = server.sent.filter(({ path }) => path === '/api/tokens')
  expect(asked.map(({ body }) => body)).toEqual([{ name: 'Shop' }, { name: 'Shop' }])
  asked[1]!.answer({ token: 'st_x' })
  expect(await done).toEqual({ token: 'st_x' })
  expect(confirming.asked).toBe(false)
})

test('who does not give the password has done nothing, and two who are asked at once are asked once', async () => {
  const confirming = useConfirming()
  const refused = ['/api/tokens', '/api/users'].map((at) => changeAt(at, { method: 'POST' }))
  for (const at of ['/api/tokens', '/api/users']) server.latest(at).failWith(wantsPassword())
  await settled()
  confirming.end(false)
  for (const one of refused) await expect(one).rejects.toMatchObject({ statusCode: 403 })
  expect(server.sent).toHaveLength(2)
})
