import { once } from 'node:events'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { expect, test } from 'vitest'
import { customerFilePage, openCustomerFile } from './customer-file'

const told: string[][] = []
const file = openCustomerFile(
  () => 0,
  (...one) => told.push(one),
)

test('who is handed over is added or changed, as is asked; the same key is answered as before', async () => {
  const server = createServer((request, response) => void file.answer(request, response))
  await once(server.listen(0, '127.0.0.1'), 'listening')
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/in`
  const hand = async (id: string, how: string, fields: object = {}) => {
    const body = JSON.stringify({ id, how, person: { address: 'ada@inkpost.example' }, fields })
    const answer = await fetch(url, { method: 'POST', body })
    return [answer.status, await answer.json()] as const
  }
  expect(await hand('1', 'update')).toEqual([404, { result: 'unknown' }])
  expect(await hand('2', 'add', { Town: '<Oslo>' })).toEqual([
    200,
    { result: 'added', number: 'K-1001' },
  ])
  expect(await hand('3', 'add')).toEqual([409, { result: 'known' }])
  expect(await hand('4', 'both', { Size: 3 })).toMatchObject([200, { result: 'updated' }])
  expect(await hand('2', 'add')).toMatchObject([200, { result: 'added' }])
  expect((await hand('5', 'throw away'))[0]).toBe(400)
  expect((await fetch(url)).status).toBe(400)
  server.close()
  expect(told).toEqual([['ada@inkpost.example', 'K-1001']])
  expect(file.all()).toMatchObject([{ number: 'K-1001', fields: { Town: '<Oslo>', Size: 3 } }])
  expect(customerFilePage(file.all())).toContain('Town: &#60;Oslo&#62;<br>Size: 3')
})
