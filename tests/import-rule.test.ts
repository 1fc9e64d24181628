import { ESLint } from 'eslint'
import { expect, test } from 'vitest'

/** Which way imports go is held by the linter; these are the ways it must close. */
const eslint = new ESLint()
async function complaints(file: string, code: string): Promise<number> {
  const [result] = await eslint.lintText(`${code}\n`, { filePath: file })
  return result!.messages.filter((message) => message.ruleId?.includes('restricted-imports')).length
}

test.each([
  ['core/people/x.ts', "import '../../database'"],
  ['core/people/x.ts', "import 'node:fs'"],
  ['core/people/x.ts', "import 'vue'"],
  ['database/x.ts', "import '../engine/engine'"],
  ['database/x.ts', "import '../cases/apart'"],
  ['cases/x.ts', "import '../engine/engine'"],
  ['cases/x.ts', "import '../server/utils/satchel'"],
  ['app/stores/x.ts', "import '~~/cases/apart'"],
  ['engine/x.ts', "import '../server/utils/satchel'"],
  ['server/api/x.ts', "import '~~/engine/engine'"],
  ['app/stores/x.ts', "import '~~/database/people'"],
  ['app/stores/x.ts', "import { makeToken } from '~~/core/delivery'"],
  ['app/stores/x.ts', "import { questions } from '~~/server/asker/questions'"],
  ['world/x.ts', "import '../core/people'"],
  ['shared/x.ts', "import '../database'"],
  ['engine/x.ts', "import '../database/people/fields'"],
  ['server/api/x.ts', "import '~~/database/people/fields'"],
  ['tests/x.ts', "import '../database/people/fields'"],
  ['server/api/x.ts', "import '~~/cases/letters/frame'"],
  ['database/segments/x.ts', "import '../people/fields'"],
  ['database/segments/x.ts', "import '../mailings'"],
  ['database/people/x.ts', "import '../../engine/engine'"],
])('%s may not say %s', async (file, code) => {
  expect(await complaints(file, code)).toBe(1)
})

test.each([
  ['database/x.ts', "import '../core/people'"],
  ['engine/x.ts', "import '../database/people'"],
  ['engine/x.ts', "import '../cases/apart'"],
  ['cases/x.ts', "import '../database/people'"],
  ['database/segments/x.ts', "import '../people'"],
  ['database/segments/x.ts', "import '../../core/people'"],
  ['server/api/x.ts', "import '~~/database/people'"],
  ['app/stores/x.ts', "import '~~/core/people'"],
  ['app/stores/x.ts', "import type { SegmentAnswer } from '~~/server/asker/questions'"],
  ['app/stores/x.ts', "import type { WaterfallStep } from '~~/core/delivery'"],
])('%s may say %s', async (file, code) => {
  expect(await complaints(file, code)).toBe(0)
})

test('pages change the server by one door alone', async () => {
  const rules = async (file: string, code: string) => {
    const [result] = await eslint.lintText(`${code}\n`, { filePath: file })
    return result!.messages.map(({ ruleId }) => ruleId)
  }
  const change = "void $fetch('/api/words', { method: 'POST' })"
  expect(await rules('app/stores/x.ts', change)).toEqual(['no-restricted-globals'])
  expect(await rules('app/stores/x.ts', "void fetch('/api/words')")).toEqual([
    'no-restricted-globals',
  ])
  expect(await rules('app/composables/changes.ts', change)).toEqual([])
})
