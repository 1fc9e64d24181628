import { sql } from 'kysely'
import { expect, it } from 'vitest'
import { all, openMemory, raw } from '.'
import { accountTriggers } from './account/schema'
import { labelTriggers } from './labels/schema'
import { peopleTriggers } from './people/schema'
import { readerTriggers } from './readers/schema'
import { signUpTriggers } from './sign-ups/schema'
import { resultTriggers } from './results/schema'
import { sequenceTriggers } from './sequences/schema'

it('every trigger of the database stands in the schema of the table that it keeps', () => {
  const there = all(
    openMemory(),
    raw(sql<{ name: string }>`select name from sqlite_master where type = 'trigger' order by name`),
  )
  const listed = {
    ...{ ...accountTriggers, ...peopleTriggers, ...readerTriggers, ...resultTriggers },
    ...{ ...signUpTriggers, ...sequenceTriggers, ...labelTriggers },
  }
  expect(there.map(({ name }) => name)).toEqual(Object.keys(listed).sort())
})
