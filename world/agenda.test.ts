import fc from 'fast-check'
import { expect, test } from 'vitest'
import { Agenda } from './agenda'
import { Mailboxes } from './post-office/mailboxes'
import { mailboxExists, providerOf, providers } from './post-office/providers'

test('what is due comes in the order of its time, and nothing before it', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 100 }), { maxLength: 60 }),
      fc.integer({ min: -1, max: 101 }),
      (times, now) => {
        const agenda = new Agenda<number>()
        for (const at of times) agenda.add(at, at)
        const due = agenda.takeDue(now, 1_000)
        expect(due).toEqual(times.filter((at) => at <= now).sort((a, b) => a - b))
        expect(agenda.size).toBe(times.length - due.length)
        expect(agenda.takeDue(1_000, 1_000)).toEqual(
          times.filter((at) => at > now).sort((a, b) => a - b),
        )
      },
    ),
  )
})

test('no more is taken than asked for, and the rest stays', () => {
  const agenda = new Agenda<string>()
  for (const [at, what] of [
    [3, 'c'],
    [1, 'a'],
    [2, 'b'],
  ] as const)
    agenda.add(at, what)
  expect(agenda.takeDue(9, 2)).toEqual(['a', 'b'])
  expect(agenda.takeDue(9, 2)).toEqual(['c'])
  expect(agenda.takeDue(9, 2)).toEqual([])
})

const mail = (address: string, i: number) => ({
  address,
  from: 'hello@galewright.example',
  subject: `Wind notes ${i}`,
  messageId: `<${i}@galewright.example>`,
  at: i,
  folder: 'inbox' as const,
  source: `source ${i}`,
})

test('the latest mail comes first, for everybody or for one mailbox', () => {
  const boxes = new Mailboxes()
  for (let i = 0; i < 6; i++) boxes.put(mail(i % 2 ? 'ivo@x.example' : 'tove@x.example', i))
  expect(boxes.count).toBe(6)
  expect(boxes.latest(2).map(({ at }) => at)).toEqual([5, 4])
  expect(boxes.latest(9, 'tove@x.example').map(({ at }) => at)).toEqual([4, 2, 0])
  expect(boxes.latest(9, 'nobody@x.example')).toEqual([])
  expect(boxes.get(3)).toMatchObject({ no: 3, subject: 'Wind notes 3' })
  expect(boxes.get(99)).toBeUndefined()
})

test('of old mail only the source is forgotten, never that it came', () => {
  const boxes = new Mailboxes()
  for (let i = 0; i < 1_600; i++) boxes.put(mail('tove@x.example', i))
  expect(boxes.get(0)!.source).toBeNull()
  expect(boxes.get(99)!.source).toBeNull()
  expect(boxes.get(100)!.source).toBe('source 100')
  expect(boxes.all()).toHaveLength(1_600)
  expect(boxes.all()[0]).toEqual({
    address: 'tove@x.example',
    messageId: '<0@galewright.example>',
    subject: 'Wind notes 0',
  })
})

test('a mailbox exists or not, always the same, about as often as its provider says', () => {
  for (const { domain, unknown } of providers) {
    const addresses = Array.from({ length: 4_000 }, (_, i) => `reader${i}@${domain}`)
    const missing = addresses.filter((address) => !mailboxExists(address))
    expect(missing).toEqual(addresses.filter((address) => !mailboxExists(address)))
    expect(missing.length / addresses.length).toBeGreaterThan(unknown * 0.4)
    expect(missing.length / addresses.length).toBeLessThan(unknown * 2)
  }
})

test('an unknown domain behaves as usual', () => {
  expect(providerOf('tove@sandreach.example')).toMatchObject({
    domain: 'sandreach.example',
    greylists: 0,
    reportsComplaints: false,
    scansLinks: false,
  })
})
