import { readdirSync } from 'node:fs'
import fc from 'fast-check'
import { expect, test } from 'vitest'
import {
  handlerOf,
  handlerOfFile,
  mayCall,
  permissionGaps,
  permissionOf,
  permissions,
  roles,
  type Handler,
} from '.'

const handlers = Object.keys(permissions) as Handler[]
const files = readdirSync('server/api', { recursive: true })
  .map(String)
  .filter((file) => file.endsWith('.ts') && !file.startsWith('v1/'))

test('every handler says who may call it, and nothing else is named', () => {
  const there = files.map((file) => handlerOfFile(`api/${file}`))
  expect(there.length).toBeGreaterThan(150)
  expect(permissionGaps(there)).toEqual({ missing: [], idle: [] })
  expect(permissionGaps([...there, 'PUT /api/new']).missing).toEqual(['PUT /api/new'])
})

test('a request finds its handler, whatever stands for the placeholders, with names before placeholders', () => {
  fc.assert(
    fc.property(fc.constantFrom(...handlers), fc.nat(1e6), (handler, id) => {
      const [method, path] = handler.split(' ') as [string, string]
      expect(handlerOf(method, path.replace(/\[\w+\]/g, String(id)))).toBe(handler)
    }),
  )
  expect(handlerOf('POST', '/api/mailings/from-file')).toBe('POST /api/mailings/from-file')
  expect(handlerOf('HEAD', '/api/lists/')).toBe('GET /api/lists')
  expect(handlerOf('PATCH', '/api/lists/1')).toBeNull()
  expect(handlerOf('GET', '/api/mailings/1/2/3')).toBeNull()
  expect(handlerOf('GET', '/api/people/../users')).toBeNull()
})

test('each role may all that those before it may; nobody who is not signed in may anything but sign in', () => {
  for (const handler of handlers) {
    const may = roles.map((role) => mayCall(role, handler))
    expect(may, handler).toEqual(may.toSorted())
    expect(mayCall('owner', handler)).toBe(true)
    expect(mayCall(null, handler), handler).toBe(permissionOf(handler).least === 'anybody')
  }
  expect(handlers.filter((handler) => mayCall(null, handler))).toHaveLength(5)
})

test('a viewer changes nothing but their own account; what changes something is noted', () => {
  const asks = [
    /ask$/,
    /mapping$/,
    /sample$/,
    /members$/,
    /past-sizes$/,
    /segments\/counts$/,
    /read$/,
    /why$/,
    /presence$/,
    /rehearsal$/,
  ]
  for (const handler of handlers.filter((one) => !one.startsWith('GET'))) {
    const { did, least } = permissionOf(handler)
    if (least === 'anybody' || asks.some((pattern) => pattern.test(handler))) continue
    if (mayCall('viewer', handler)) expect(handler).toMatch(/ \/api\/(me|session)(\/|$)/)
    else expect(did, handler).toBeTruthy()
  }
})
