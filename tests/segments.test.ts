import { readFileSync } from 'node:fs'
import { beforeAll, expect, test } from 'vitest'
import { writeRule, type Rule } from '../core/segments'
import { all, one, q } from '../database'
import { clockOf } from '../database/account'
import { emptyMap } from '../core/sequences'
import { addSegment, countMembers, readCatalog, readSegments } from '../database/segments'
import { deleteTag, tagNamed } from '../database/people'
import { addSequence } from '../database/sequences'
import { demoInBrowser } from './demo-in-browser'
import { until } from './installation'

/** Rules moved about by hand, and what one does with a segment then. */
const { satchel, visitor, page, seen, jumpTo } = demoInBrowser(400)
let id: number
const now = () => clockOf(satchel.db, Date.now)()
const tier = (of: 'keen' | 'warm' | 'cool'): Rule => ({ kind: 'tier', of: [of] })
const joined = (days: number): Rule => ({ kind: 'joined', when: { is: 'last-days', days } })

beforeAll(async () => {
  const rule: Rule = {
    kind: 'all',
    of: [joined(900), tier('warm'), { kind: 'any', of: [tier('keen'), joined(400)] }],
  }
  id = addSegment(satchel.db, 'Moved about', rule, now())
  await page().goto(`${satchel.url}/people/segments/${id}`)
  await seen('Moved about')
})

const lines = () => page().getByRole('list', { name: 'Rules' }).getByRole('listitem')
/** The rule as it stands in the page, as text. */
const ruleText = async () => {
  await page().getByRole('button', { name: 'as text' }).click()
  const text = await page().getByLabel('The rule as text').inputValue()
  await page().getByRole('button', { name: 'Close', exact: true }).click()
  return text
}
const reads = (rule: Rule) => writeRule(rule, readCatalog(satchel.db))
async function becomes(rule: Rule) {
  await until('the rule is that', async () => (await ruleText()) === reads(rule))
}

test('Alt with an arrow moves a line among its siblings, and out of its group at the edge', async () => {
  await lines().nth(0).getByLabel('Days').focus()
  await page().keyboard.press('Alt+ArrowDown')
  await becomes({
    kind: 'all',
    of: [tier('warm'), joined(900), { kind: 'any', of: [tier('keen'), joined(400)] }],
  })
  await lines()
    .nth(3)
    .getByRole('button', { name: /^Remove line/ })
    .focus()
  await page().keyboard.press('Alt+ArrowUp')
  await becomes({
    kind: 'all',
    of: [tier('warm'), joined(900), tier('keen'), { kind: 'any', of: [joined(400)] }],
  })
  await page().getByRole('button', { name: 'Undo', exact: true }).click()
  await page().getByRole('button', { name: 'Undo', exact: true }).click()
  await becomes({
    kind: 'all',
    of: [joined(900), tier('warm'), { kind: 'any', of: [tier('keen'), joined(400)] }],
  })
})

test('a line is dragged into a group', async () => {
  const handle = lines()
    .nth(0)
    .getByTitle(/^Drag to move/)
  const from = (await handle.boundingBox())!
  const to = (await lines().nth(4).boundingBox())!
  await page().mouse.move(from.x + 5, from.y + 8)
  await page().mouse.down()
  await page().mouse.move(from.x + 5, from.y + 40, { steps: 5 })
  await page().mouse.move(to.x + 200, to.y + 15, { steps: 8 })
  await page().mouse.up()
  await becomes({
    kind: 'all',
    of: [tier('warm'), { kind: 'any', of: [tier('keen'), joined(900), joined(400)] }],
  })
})

test('the counts are those of the rule, line by line', async () => {
  const rule: Rule = {
    kind: 'all',
    of: [tier('warm'), { kind: 'any', of: [tier('keen'), joined(900), joined(400)] }],
  }
  await until('both lines are counted', async () => {
    const shown = await lines().evaluateAll((items) =>
      items.map((item) => item.querySelector('.num')?.textContent?.replace(/\D/g, '')),
    )
    return (
      Number(shown[0]) === countMembers(satchel.db, tier('warm'), now()) &&
      Number(shown[1]) === countMembers(satchel.db, rule, now())
    )
  })
  await visitor.expectAccessible()
})

async function takeOut() {
  await page().getByRole('button', { name: 'Export…' }).click()
  await visitor.expectAccessible()
  await page().getByRole('button', { name: 'nothing else' }).click()
  await page().getByRole('checkbox', { name: 'Engagement' }).check()
  await page().getByRole('checkbox', { name: 'Town' }).check()
  await page().getByRole('button', { name: 'Town earlier' }).click()
  await page().getByRole('button', { name: 'Export', exact: true }).click()
}

test('its people are taken out as CSV, each of them and nobody else, with the chosen columns', async () => {
  await page().getByRole('button', { name: 'Save changes' }).click()
  await until(
    'it is saved',
    () => readSegments(satchel.db).find((one) => one.id === id)!.version > 1,
  )
  const rule = readSegments(satchel.db).find((one) => one.id === id)!.rule
  const [download] = await Promise.all([page().waitForEvent('download'), takeOut()])
  const csv = readFileSync((await download.path())!, 'utf8')
  const rows = csv.trim().split('\r\n')
  expect(rows).toHaveLength(1 + countMembers(satchel.db, rule, now()))
  expect(rows[0]).toBe('Address,Town,Engagement')
})

test('what the size was before follows the rule', async () => {
  await seen('The last twelve weeks')
  const picture = page().getByRole('img', { name: /people twelve weeks ago/ })
  const before = await picture.getAttribute('aria-label')
  await page().getByRole('button', { name: 'Remove line 1' }).click()
  await until('it is reckoned anew', async () => {
    const label = await picture.getAttribute('aria-label')
    return label !== before && label!.endsWith(`${await shownTotal()} now`)
  })
  await page().getByRole('button', { name: 'Undo' }).first().click()
})
const shownTotal = () => page().locator('header [aria-live=polite]').innerText()

test('a mailing goes to a segment: the waterfall ends at just its people', async () => {
  const list = one(satchel.db, q.selectFrom('lists').select(['id', 'name']).orderBy('id').limit(1))!
  const created = await page().request.post(`${satchel.url}/api/mailings`, { data: {} })
  const mailing = ((await created.json()) as { id: number }).id
  await page().goto(`${satchel.url}/mail/${mailing}/audience`)
  await page().getByLabel('List', { exact: true }).selectOption(String(list.id))
  await page().getByRole('radio', { name: 'who are in a segment' }).check()
  const segment = page().getByLabel('Segment', { exact: true })
  await segment.selectOption({ label: 'Moved about' })
  await page()
    .getByRole('button', { name: /^Remove/ })
    .first()
    .click()
  const rule = readSegments(satchel.db).find((one) => one.id === id)!.rule
  const expected = countMembers(
    satchel.db,
    {
      kind: 'all',
      of: [{ kind: 'on-list', listId: list.id, state: 'subscribed', since: null, way: null }, rule],
    },
    now(),
  )
  const aside = all(
    satchel.db,
    q
      .selectFrom('set_aside')
      .innerJoin('subscriptions', 'subscriptions.person_id', 'set_aside.person_id')
      .select('set_aside.person_id')
      .where('list_id', '=', list.id)
      .where('state', '=', 'subscribed'),
  ).length
  expect(aside).toBeGreaterThanOrEqual(0)
  await until('the waterfall is counted', async () => {
    const left = await page().locator('.sheet-head b').innerText()
    const shown = Number(left.replace(/\D/g, ''))
    return shown <= expected && shown >= expected - aside
  })
  await visitor.expectAccessible()
  await page().goto(`${satchel.url}/people/segments/${id}`)
  await seen(/Used|used/)
})

test('day by day a segment says who came and went, and because of what', async () => {
  const day = addSegment(satchel.db, 'Of these days', joined(1), now())
  await page().goto(`${satchel.url}/people/segments/${day}`)
  await seen('Its size is noted once a day from now on')
  const known = () =>
    all(satchel.db, q.selectFrom('segment_days').select('day').where('segment_id', '=', day)).length
  await until('today is noted', () => known() === 1)
  const { id: person } = one(
    satchel.db,
    q.selectFrom('people').select('id').orderBy('joined_at', 'desc').orderBy('id', 'desc'),
  )!
  satchel.db.sqlite.prepare('update people set joined_at = ? where id = ?').run(now(), person)
  await jumpTo(now() + 26 * 3_600_000)
  await until('the next day is noted, too', () => known() >= 2)
  const chart = page().getByRole('img', { name: /people on .*, \d+ on / })
  await chart.waitFor()
  await visitor.expectAccessible()
})

test('what is being typed stays when an answer arrives in the middle of a word', async () => {
  await page().goto(`${satchel.url}/people/segments/new`)
  // The value is gone to by itself, and asks then: it is waited for from before the rule is there.
  const asked = /\/api\/segments\/values\?/
  await page().route(asked, async (route) => {
    await new Promise((late) => setTimeout(late, 900))
    await route.continue()
  })
  const values = page().waitForResponse(asked)
  await page().getByRole('combobox', { name: 'Add a rule' }).fill('flying style')
  await page().getByRole('option', { name: 'Flying style includes', exact: true }).click()
  await page().locator('[aria-label="Value"]:focus').waitFor()
  await page().keyboard.press('Control+a')
  await page().keyboard.type('stu')
  await values
  await page().locator('datalist option').first().waitFor({ state: 'attached' })
  await page().keyboard.type('nt')
  await page().keyboard.press('Enter')
  await seen(/Flying style includes "stunt"/)
  await page().unroute(asked)
})

test('two segments cannot share a name, and one that a sequence asks for is not deleted', async () => {
  const { request } = page()
  const data = { name: 'MOVED ABOUT', rule: tier('keen') }
  const twice = await request.post(`${satchel.url}/api/segments`, { data })
  expect(twice.status()).toBe(422)
  expect(await twice.text()).toContain('There is a segment of this name already.')
  const asked = addSegment(satchel.db, 'Asked by a sequence', tier('warm'), now())
  const sequence = addSequence(satchel.db, 'Asks', null, now())
  const map = {
    ...emptyMap,
    start: { ...emptyMap.start, rule: { kind: 'segment', segmentId: asked } },
  }
  satchel.db.sqlite
    .prepare('update sequences set map = ? where id = ?')
    .run(JSON.stringify(map), sequence)
  const kept = await request.delete(`${satchel.url}/api/segments/${asked}`)
  expect(kept.status()).toBe(409)
  expect(await kept.text()).toContain('It is used by “Asks”.')
})

test('so many of the last mailings are chosen as a sentence, all of them or none', async () => {
  await page().goto(`${satchel.url}/people/segments/new?text=opened+the+last+5+mailings`)
  const often = page().getByLabel('How often')
  await often.waitFor()
  expect(await often.inputValue()).toBe('at-least')
  await often.selectOption('all')
  await becomesText('opened all of the last 5 mailings')
  await page().getByLabel('How many mailings').fill('7')
  await page().getByLabel('How many mailings').press('Enter')
  await becomesText('opened all of the last 7 mailings')
  await often.selectOption('none')
  await page().getByLabel('Who was sent none of them').selectOption('in')
  await becomesText('opened none of the last 7 mailings or was sent none')
  await often.selectOption('at-least')
  await becomesText('opened at least 1 of the last 7 mailings')
})
async function becomesText(text: string) {
  await until('the rule is that', async () => (await ruleText()) === text)
}

test('the first tenth, who is suppressed, where people come from and what they read on are asked as sentences', async () => {
  const texts = [
    'top 10% by money',
    'suppressed as bounced in the last 365 days',
    'came by hand',
    'reads on a phone in the last 90 days',
    'language is de, en',
    'opened any mailing outside sequences in the last 90 days',
  ]
  const text = texts.join(' or ')
  await page().goto(`${satchel.url}/people/segments/new?text=${encodeURIComponent(text)}`)
  await page().getByLabel('In order of').waitFor()
  await becomesText(text)
  await visitor.expectAccessible()
  await page().getByLabel('From which end').selectOption('bottom')
  await page().getByLabel('In order of').selectOption('engagement')
  await page().getByLabel('Why', { exact: true }).selectOption('')
  await page().getByLabel('By which way').selectOption('api')
  await page().getByLabel('On or in what').selectOption('browser')
  await page().getByLabel('Another language').selectOption('fr')
  await becomesText(
    [
      'bottom 10% by engagement',
      'suppressed in the last 365 days',
      'came by api',
      'reads in a browser in the last 90 days',
      'language is de, en, fr',
      texts[5],
    ].join(' or '),
  )
})

test('whoever adds a rule writes its value next, without reaching for the mouse', async () => {
  await page().goto(`${satchel.url}/people/segments/new`)
  const box = page().getByRole('combobox', { name: 'Add a rule' })
  await box.fill('town')
  await page().getByRole('option', { name: 'Town is', exact: false }).first().click()
  const value = page().getByRole('list', { name: 'Rules' }).locator('input').first()
  await until('the value is being written', () =>
    value.evaluate((input) => document.activeElement === input),
  )
  await page().keyboard.type('Orrin')
  await page().keyboard.press('Enter')
  await becomesText('Town is "Orrin"')
})

test('what somebody has for a field is found by typing it', async () => {
  await page().goto(`${satchel.url}/people/segments/new`)
  await page().getByRole('combobox', { name: 'Add a rule' }).fill('orrin')
  await page().getByRole('option', { name: 'Town is Orrin', exact: true }).click()
  await becomesText('Town is "Orrin"')
})

test('all people of a segment are reached in the table of people, and filtered further', async () => {
  const rule: Rule = { kind: 'field', key: 'town', test: { is: 'equal', text: 'Orrin' } }
  const own = addSegment(satchel.db, 'All of Orrin', rule, now())
  const members = countMembers(satchel.db, rule, now())
  await page().goto(`${satchel.url}/people/segments/${own}`)
  await page()
    .getByRole('link', { name: /^All [\d,]+ in the table$/ })
    .click()
  await seen('All of Orrin')
  const shown = async () =>
    Number(
      (await page().getByRole('status', { name: 'How many are found' }).innerText()).replace(
        /\D/g,
        '',
      ),
    )
  await until('all are counted', async () => (await shown()) === members)
  const table = page().getByRole('region', { name: 'People, scrollable' })
  await table.evaluate((element) => element.scrollTo(0, element.scrollHeight))
  await until('the last row is there', async () => {
    const rows = await table.getByRole('checkbox').count()
    return rows > 0 && members > 0
  })
  const [tag] = all(
    satchel.db,
    q
      .selectFrom('person_tags')
      .innerJoin('tags', 'tags.id', 'tag_id')
      .select(['tags.id', 'tags.name']),
  ) as [{ id: number; name: string }]
  await page().getByLabel('Filter by tag').selectOption({ label: tag.name })
  const both: Rule = { kind: 'all', of: [rule, { kind: 'tagged', tagId: tag.id }] }
  await until('both hold', async () => (await shown()) === countMembers(satchel.db, both, now()))
  await visitor.expectAccessible()
  await page().goBack()
  await until('the tag is no filter any more', async () => (await shown()) === members)
})

test('a rule goes on naming a tag that is deleted, and the trend is greyed while the rule is another', async () => {
  const tag = tagNamed(satchel.db, 'short-lived')
  const of = addSegment(satchel.db, 'Of a deleted tag', { kind: 'tagged', tagId: tag }, now())
  deleteTag(satchel.db, tag)
  await page().goto(`${satchel.url}/people/segments/${of}`)
  await seen('The tag “short-lived” asked for here is deleted.')
  await until('the chip has its name', async () =>
    (await page().getByLabel('Tag', { exact: true }).innerText()).includes('short-lived (deleted)'),
  )
  const day = readSegments(satchel.db).find(({ name }) => name === 'Of these days')!
  await page().goto(`${satchel.url}/people/segments/${day.id}`)
  await page().getByLabel('Days').fill('33')
  await page().getByLabel('Days').press('Enter')
  await seen('This is of the rules as they were saved, not of those shown.')
})

test('two who are one person are made one', async () => {
  const [kept, gone] = all(
    satchel.db,
    q.selectFrom('people').select(['id', 'address']).orderBy('id').limit(2),
  ) as [{ id: number; address: string }, { id: number; address: string }]
  await page().goto(`${satchel.url}/people/${kept.id}`)
  await page().getByRole('button', { name: 'Merge' }).click()
  await page().getByLabel('Who is the same person?').fill(gone.address)
  await page().getByRole('radio').first().check()
  await visitor.expectAccessible()
  await page().getByRole('dialog').getByRole('button', { name: 'Merge' }).click()
  await seen('The two are one now.')
  expect(
    one(satchel.db, q.selectFrom('people').select('id').where('id', '=', gone.id)),
  ).toBeUndefined()
})

test('the browser’s console said no error', () => {
  expect(visitor.errors).toEqual([])
})
