import { afterAll, beforeAll, expect } from 'vitest'
import { visit, type Visitor } from './browser'
import { install, type Installation } from './installation'

/**
 * The demo account of so many people, running, with a browser that has entered it, for the tests of one
 * file. What is returned is filled in before the first of them. With `unread`, nobody reads the mail that goes out:
 * for tests that wait for what a sequence does with somebody who does nothing.
 */
export function demoInBrowser(people: number, { unread = false } = {}) {
  const satchel = {} as Installation
  const visitor = {} as Visitor
  const page = () => visitor.page
  // What a closed list offers has the text too, and is not seen.
  const seen = (text: string | RegExp) =>
    page().getByText(text).filter({ visible: true }).first().waitFor()
  /** Sets the practice clock on its way to a time; that it gets there is for the test to wait for. */
  async function jumpTo(time: number) {
    const set = await page().request.post(`${satchel.url}/api/clock`, { data: { jumpTo: time } })
    expect(set.status()).toBe(200)
  }
  beforeAll(async () => {
    Object.assign(satchel, await install({ demo: people, unread }))
    await Promise.all([satchel.start('web'), satchel.start('engine'), satchel.start('world')])
    Object.assign(visitor, await visit())
    await page().goto(satchel.enterUrl)
    await seen('Waiting for you')
  })
  afterAll(async () => {
    await visitor.close?.()
    await satchel.stop?.()
  })
  return { satchel, visitor, page, seen, jumpTo }
}
