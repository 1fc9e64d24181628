import { expect, test } from 'vitest'
import { addressInCell } from './address-cell'

test.each([
  ['ann@inkpost.example', ''],
  ['mailto:ann@inkpost.example', ''],
  ['mailto:ann@inkpost.example?subject=Kites', ''],
  ['<ann@inkpost.example>', ''],
  ['Ann Orrin <ann@inkpost.example>', 'Ann Orrin'],
  ['"Orrin, Ann" <ann@inkpost.example>;', 'Orrin, Ann'],
  ['ann@inkpost.example.', ''],
  ['ann@inkpost.example;', ''],
  ['\u00a0ann@inkpost.example\u00a0', ''],
  ['ann@ink\u200bpost.example', ''],
  ['“ann@inkpost.example”', ''],
])('%j holds one address', (cell, name) => {
  expect(addressInCell(cell)).toMatchObject({ ok: true, normal: 'ann@inkpost.example', name })
})

test.each([
  ['ann@inkpost.example, bo@inkpost.example', 'several'],
  ['ann@inkpost.example bo@inkpost.example', 'several'],
  ['Ann <ann@inkpost.example>, Bo <bo@inkpost.example>', 'several'],
  ['ann at inkpost.example', 'no-at'],
  ['ann@@inkpost.example', 'many-at'],
  ['', 'empty'],
  ['ann orrin@inkpost.example', 'local-form'],
])('%j is refused as %s', (cell, problem) => {
  expect(addressInCell(cell)).toEqual({ ok: false, problem })
})
