import { mkdtempSync, writeFileSync } from 'node:fs'
import { Resolver } from 'node:dns/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { openNames } from './server'

const file = join(mkdtempSync(join(tmpdir(), 'satchel-names-')), 'zone.json')
const server = openNames(file)
const resolver = new Resolver({ timeout: 1_000, tries: 1 })
beforeAll(async () => {
  writeFileSync(
    file,
    JSON.stringify({ 'galewright.example': { TXT: ['v=spf1 -all', 'x'.repeat(400)] } }),
  )
  await new Promise<void>((done) => server.bind(0, '127.0.0.1', done))
  resolver.setServers([`127.0.0.1:${server.address().port}`])
})
afterAll(() => void server.close())

test('what was published is answered, long texts in parts, whatever the case of the name', async () => {
  const texts = (await resolver.resolveTxt('GALEWRIGHT.example')).map((parts) => parts.join(''))
  expect(texts).toEqual(['v=spf1 -all', 'x'.repeat(400)])
  expect(await resolver.resolveMx('inkpost.example')).toEqual([
    { priority: 10, exchange: 'mx.inkpost.example' },
  ])
})

test('what nobody published is not there, and what changes is answered at once', async () => {
  await expect(resolver.resolveTxt('nowhere.example')).rejects.toMatchObject({ code: 'ENOTFOUND' })
  await expect(resolver.resolve4('galewright.example')).rejects.toMatchObject({ code: 'ENODATA' })
  writeFileSync(file, JSON.stringify({ 'nowhere.example': { A: ['192.0.2.1'] } }))
  expect(await resolver.resolve4('nowhere.example')).toEqual(['192.0.2.1'])
  writeFileSync(file, 'no zone')
  await expect(resolver.resolve4('nowhere.example')).rejects.toMatchObject({ code: 'ENOTFOUND' })
})
