import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { madeUpServer, settled } from '../made-up'
import { usePresence } from './presence'

let server: ReturnType<typeof madeUpServer>
beforeEach(() => {
  vi.useFakeTimers()
  server = madeUpServer()
})
afterEach(() => vi.useRealTimers())
const path = '/api/mailings/5/presence'
const tove = { tab: 'b', userId: 2, name: 'Tove', blockId: 'title' }

test('says where one is, again and again, and knows who else is there', async () => {
  const presence = usePresence()
  let block: string | null = null
  presence.begin(5, () => block)
  server.latest(path).answer({ others: [tove], held: true })
  await settled()
  expect(presence.whoIsIn('title')).toBe('Tove')
  expect(presence.whoIsIn('text')).toBeUndefined()
  block = 'text'
  await vi.advanceTimersByTimeAsync(5_000)
  expect(server.latest(path).body).toMatchObject({ blockId: 'text' })
})

test('a block that somebody else is in already is refused', async () => {
  const presence = usePresence()
  presence.begin(5, () => 'title')
  server.latest(path).answer({ others: [tove], held: false })
  await settled()
  expect(presence.refused).toBe('title')
})

test('leaving is told, and an answer that comes after it is nobody’s', async () => {
  const presence = usePresence()
  presence.begin(5, () => null)
  const first = server.latest(path)
  presence.end()
  expect(server.latest(path).body).toMatchObject({ leaves: true })
  first.answer({ others: [tove], held: true })
  await settled()
  expect(presence.others).toEqual([])
  await vi.advanceTimersByTimeAsync(20_000)
  expect(server.sent).toHaveLength(2)
})
