import { ValidationError, type AnyObject, type ObjectSchema } from 'yup'
import { expect, test } from 'vitest'
import { apiEvent, apiOrder, apiPerson } from './api-inputs'
import { accountInput, ownerInput } from './account-inputs'
import { letterInput } from './letter-inputs'
import { mailingInput } from './mailing-inputs'
import { importInput, noteInput, peopleActInput, personInput } from './people-inputs'
import { segmentInput } from './segment-inputs'

/** The faults of a body, by the path of each. */
function faultsOf(schema: ObjectSchema<AnyObject>, body: unknown): Record<string, string> {
  try {
    schema.validateSync(body, { abortEarly: false, stripUnknown: true })
    return {}
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    const inner = error.inner.length ? error.inner : [error]
    return Object.fromEntries(inner.map(({ path, errors }) => [path ?? '', errors[0]!]))
  }
}

const owner = {
  name: 'Pia',
  address: 'pia@galewright.example',
  password: 'a long enough one',
  code: '1a2b',
  accountName: 'Galewright Kites',
  zone: 'Europe/London',
}
const account = {
  name: 'Galewright Kites',
  sender_name: 'Galewright Kites',
  sender_address: 'hello@galewright.example',
  postal_address: '',
  zone: 'UTC',
  pace_per_minute: null,
}
const person = { address: 'tove@inkpost.example' }
const imported = {
  file: '0'.repeat(36),
  name: 'people.csv',
  encoding: 'utf-8',
  delimiter: ',',
  plans: [{}],
  listId: null,
}
const event = { address: 'tove@inkpost.example', name: 'page view' }
const order = {
  number: 'G-1',
  address: 'tove@inkpost.example',
  items: [{ product: 'delta-7', name: 'Delta 7', money: 9_400 }],
}

test.each<[string, ObjectSchema<AnyObject>, object]>([
  ['an owner', ownerInput, owner],
  ['an account', accountInput, account],
  ['a person', personInput, person],
  ['an import', importInput, imported],
  ['a person from a program', apiPerson, person],
  ['an event', apiEvent, event],
  ['an event with a time', apiEvent, { ...event, at: '2026-11-23T09:40:00Z' }],
  ['an order', apiOrder, order],
  ['a mailing', mailingInput, { name: 'Wind notes 48', listId: 1, joinedWithinDays: 30 }],
  ['a letter', letterInput, { subject: '', previewText: '', document: {}, version: 1 }],
])('%s is taken', (_, schema, body) => {
  expect(faultsOf(schema, body)).toEqual({})
})

test.each<[string, ObjectSchema<AnyObject>, object, string, RegExp]>([
  ['a short password', ownerInput, { ...owner, password: 'eleven char' }, 'password', /12/],
  ['no name', ownerInput, { ...owner, name: ' ' }, 'name', /Write your name/],
  ['no address', ownerInput, { ...owner, address: 'pia' }, 'address', /not an e-mail address/],
  ['no zone', accountInput, { ...account, zone: 'Sandreach' }, 'zone', /not a time zone/],
  [
    'a line break in a name',
    accountInput,
    { ...account, sender_name: 'A\r\nBcc: x' },
    'sender_name',
    /line breaks/,
  ],
  [
    'a pace of none',
    accountInput,
    { ...account, pace_per_minute: 0 },
    'pace_per_minute',
    /At least 1/,
  ],
  [
    'half a message',
    accountInput,
    { ...account, pace_per_minute: 1.5 },
    'pace_per_minute',
    /whole number/,
  ],
  ['a list without a reason', personInput, { ...person, lists: [1] }, 'reason', /kept as evidence/],
  ['a tag with a line break', personInput, { ...person, tags: ['a\nb'] }, 'tags[0]', /line breaks/],
  [
    'a file that leads elsewhere',
    importInput,
    { ...imported, file: '../../etc/passwd' },
    'file',
    /Choose the file again/,
  ],
  ['a separator nobody uses', importInput, { ...imported, delimiter: 'x' }, 'delimiter', /one of/],
  ['a rule that is missing', segmentInput, { name: 'Keen' }, 'rule', /A rule is missing/],
  ['a note of nothing', noteInput, { text: '   ' }, 'text', /Write a note/],
  ['nobody chosen', peopleActInput, { ids: [], act: 'tag', tag: 'x' }, 'ids', /Choose somebody/],
  ['a tag without a name', peopleActInput, { ids: [1], act: 'tag' }, 'tag', /Name a tag/],
  [
    'suppressing without a reason',
    peopleActInput,
    { ids: [1], act: 'set-aside' },
    'reason',
    /Say why/,
  ],
  ['no sequence', peopleActInput, { ids: [1], act: 'let-in' }, 'sequenceId', /Choose a sequence/],
  ['an act nobody knows', peopleActInput, { ids: [1], act: 'delete' }, 'act', /one of/],
  ['0 days', mailingInput, { joinedWithinDays: 0 }, 'joinedWithinDays', /At least 1 day/],
  [
    'a list without what was agreed',
    apiPerson,
    { ...person, lists: [{ list: 'wind-notes' }] },
    'lists[0].agreed',
    /kept as evidence/,
  ],
  ['values that are a list', apiPerson, { ...person, values: ['x'] }, 'values', /An object/],
  ['an address that is a number', apiPerson, { address: 5 }, 'address', /./],
  ['a time in words', apiEvent, { ...event, at: 'yesterday' }, 'at', /2026-11-23T09:40:00Z/],
  [
    'a property inside another',
    apiEvent,
    { ...event, properties: { a: { b: 1 } } },
    'properties',
    /texts, numbers/,
  ],
  [
    'too much of a property',
    apiEvent,
    { ...event, properties: { a: 'x'.repeat(5_000) } },
    'properties',
    /texts, numbers/,
  ],
  [
    'money in pounds',
    apiOrder,
    { ...order, items: [{ ...order.items[0], money: 94.5 }] },
    'items[0].money',
    /minor units/,
  ],
  [
    'money as text',
    apiOrder,
    { ...order, items: [{ ...order.items[0], money: '9400' }] },
    'items[0].money',
    /./,
  ],
  ['an order of nothing', apiOrder, { ...order, items: [] }, 'items', /at least one item/],
])('%s is refused, and says where', (_, schema, body, path, message) => {
  const faults = faultsOf(schema, body)
  expect(Object.keys(faults)).toEqual([path])
  expect(faults[path]).toMatch(message)
})

test('what a body has besides is left out', () => {
  expect(
    accountInput.cast({ ...account, token_key: 'mine' }, { stripUnknown: true }),
  ).not.toHaveProperty('token_key')
})
