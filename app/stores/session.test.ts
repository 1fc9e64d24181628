import { beforeEach, expect, test } from 'vitest'
import { keeperOf } from '../composables/changes'
import { madeUpServer, settled } from '../made-up'

let server: ReturnType<typeof madeUpServer>
beforeEach(() => void (server = madeUpServer()))

async function signsIn(id: number) {
  const loading = useSession().load()
  await settled()
  server
    .latest('/api/session')
    .answer({ user: { id, name: 'W', address: 'w@w.example', role: 'owner' } })
  await loading
}
const keeping = () => ({
  of: '/api/account',
  manual: true,
  load: () => Promise.resolve({ value: { name: 'Kites' }, version: 1 }),
  save: (value: { name: string }) => Promise.resolve({ value, version: 2 }),
})
const draft = () => keeperOf('/api/account', keeping)

test('who signs in again finds what they had not saved; somebody else does not', async () => {
  await signsIn(1)
  await draft().reload()
  draft().choose({ name: 'Mine' })
  await signsIn(1)
  expect(draft().shown()).toEqual({ name: 'Mine' })
  await signsIn(2)
  expect(draft().shown()).toBeNull()
})
