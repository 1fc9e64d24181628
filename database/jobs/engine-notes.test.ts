import { mkdtempSync, rmSync, symlinkSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, expect, test } from 'vitest'
import { engineNotes, takeDeaths } from './engine-notes'

const data = mkdtempSync(join(tmpdir(), 'satchel-notes-'))
afterEach(() => rmSync(data, { recursive: true, force: true }))

test('a note that goes away while deaths are asked for is nobody’s, and the others are told', () => {
  engineNotes(data, 'died').begin({ mailing: 3, what: 'letter' })
  engineNotes(data, 'lives').begin({ mailing: 4, what: '12' })
  // It is in the folder’s list, and can’t be read: as one that was taken away between the two.
  symlinkSync(join(data, 'nowhere'), join(data, 'working-at', 'a-gone'))
  symlinkSync(join(data, 'nowhere'), join(data, 'working-at', 'z-gone'))
  expect(takeDeaths(data, ['lives'])).toEqual([{ mailing: 3, what: 'letter' }])
  expect(takeDeaths(data, ['lives'])).toEqual([])
  expect(takeDeaths(data, [])).toEqual([{ mailing: 4, what: '12' }])
})
