import { expect, test } from 'vitest'
import type { SiteForms } from '../web/site-forms'
import { visitorsOf } from './hour'

const site: SiteForms = {
  satchel: 'http://127.0.0.1:4500',
  forms: [
    { key: 'guide', kind: 'in-page', pages: ['/beaches'] },
    { key: 'foot', kind: 'in-page', pages: ['*'] },
    { key: 'own', kind: 'hosted', pages: [] },
  ],
}
const hours = Array.from({ length: 24 * 40 }, (_, hour) => 490_000 + hour)

test('as many come to the site in a day as to a small shop’s, few of them sign up, and bots try', () => {
  const came = hours.flatMap((hour) => visitorsOf('a seed', hour, site, ['known@inkpost.example']))
  expect(came).toEqual(
    hours.flatMap((hour) => visitorsOf('a seed', hour, site, ['known@inkpost.example'])),
  )
  const people = came.filter(({ does }) => does !== 'bot')
  expect(people.length / 40).toBeGreaterThan(110)
  expect(people.length / 40).toBeLessThan(150)
  const share = (of: typeof people, does: string) =>
    of.filter((one) => one.does === does).length / of.length
  const inPage = people.filter(({ form }) => form.kind === 'in-page')
  expect(share(inPage, 'sends')).toBeGreaterThan(0.03)
  expect(share(inPage, 'sends')).toBeLessThan(0.06)
  expect(
    share(
      people.filter(({ form }) => form.key === 'own'),
      'sends',
    ),
  ).toBeGreaterThan(0.2)
  const bots = came.length - people.length
  expect(bots / 40).toBeGreaterThan(2)
  expect(bots / 40).toBeLessThan(6)
  expect(came.some(({ address }) => address === 'known@inkpost.example')).toBe(true)
})

test('everybody comes in their hour, to the form that stands on their page, from an address of this machine', () => {
  for (const hour of hours)
    for (const { at, page, form, ip } of visitorsOf('another', hour, site, [])) {
      expect(Math.floor(at / 3_600_000)).toBe(hour)
      expect(form.key).toBe(page === null ? 'own' : page === '/beaches' ? 'guide' : 'foot')
      expect(ip).toMatch(/^127\.\d+\.\d+\.\d+$/)
    }
})
