import fc from 'fast-check'
import { expect, test } from 'vitest'
import { nameOf, readEntered, type Posted } from './entered'
import { guideBox, someFields, someForm, windBox } from './made-up'

const known = { fields: someFields, domains: new Set(['inkpost.example', 'oldmill.example']) }
const address = { id: 'mail', kind: 'field', field: 'address' }
const form = someForm([
  address,
  { id: 'name', kind: 'field', field: 'first_name', required: true },
  { id: 'town', kind: 'field', field: 'town', choices: ['Orrin', 'Sandreach'] },
  { id: 'styles', kind: 'field', field: 'styles', choices: ['Stunt', 'Power'] },
  { id: 'born', kind: 'field', field: 'birthday' },
  guideBox,
  windBox,
  { id: 'from', kind: 'hidden', param: 'utm_source' },
])
const right: Posted = {
  'f.mail': ['Tove@Inkpost.example'],
  'f.name': [' Tove '],
  'f.town': ['Orrin'],
  'f.styles': ['Stunt', 'Power', 'Stunt'],
  'f.born': ['1990-05-04'],
  't.wind': ['yes'],
  'h.utm_source': ['beach-map'],
}

test('what was entered is understood, each value by the kind of its field', () => {
  expect(readEntered(form, right, known)).toMatchObject({
    ok: true,
    entered: {
      address: { normal: 'tove@inkpost.example' },
      values: {
        first_name: 'Tove',
        town: 'Orrin',
        styles: ['Stunt', 'Power'],
        birthday: '1990-05-04',
      },
      ticked: ['wind'],
      source: { utm_source: 'beach-map' },
    },
  })
})

test('each part that is wrong is told by its kind, and nothing is taken', () => {
  const faults = (over: Posted) => {
    const read = readEntered(form, { ...right, ...over }, known)
    return read.ok ? null : read.faults
  }
  expect(faults({ 'f.mail': [''] })).toEqual({ mail: 'empty' })
  expect(faults({ 'f.mail': ['tove at inkpost'] })).toEqual({ mail: 'address' })
  expect(faults({ 'f.name': ['  '] })).toEqual({ name: 'empty' })
  expect(faults({ 'f.town': ['Elsewhere'] })).toEqual({ town: 'value' })
  expect(faults({ 'f.styles': ['Stunt', 'Else'] })).toEqual({ styles: 'value' })
  expect(faults({ 'f.born': ['yesterday'] })).toEqual({ born: 'value' })
  expect(faults({ 't.wind': [] })).toEqual({ guide: 'tick' })
  const needed = someForm([address, guideBox, { ...windBox, required: true }])
  expect(readEntered(needed, { 'f.mail': ['a@b.example'], 't.guide': ['yes'] }, known)).toEqual({
    ok: false,
    faults: { wind: 'needed' },
  })
})

test('an address that may be a slip is asked about once, and taken when they are sure', () => {
  const slip = { ...right, 'f.mail': ['tove@inkpots.example'] }
  expect(readEntered(form, slip, known)).toEqual({
    ok: false,
    faults: {},
    meant: 'tove@inkpost.example',
  })
  expect(readEntered(form, slip, known, true).ok).toBe(true)
})

test('whatever is posted, what is taken is a box of the form, a field it asks for, or a choice it offers', () => {
  const names = [...Object.keys(right), 'f.last_name', 't.else', '__proto__']
  fc.assert(
    fc.property(
      fc.dictionary(fc.constantFrom(...names), fc.array(fc.string(), { maxLength: 3 })),
      (given) => {
        const read = readEntered(form, { ...right, ...given }, known)
        if (!read.ok) return
        const asked = ['first_name', 'town', 'styles', 'birthday']
        for (const key of Object.keys(read.entered.values)) expect(asked).toContain(key)
        for (const id of read.entered.ticked) expect(['guide', 'wind']).toContain(id)
        expect(Object.keys(read.entered.source).every((name) => name === 'utm_source')).toBe(true)
      },
    ),
  )
  expect(nameOf.field({ id: 'x' })).toBe('f.x')
})
