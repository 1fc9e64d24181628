import { expect, test } from 'vitest'
import { fillIn, readForm } from './form'

const html = `<p>Before it.</p><form class="sup" method="post" action="/s/guide?a=1&amp;b=2" lang="en">
<input class="sup-input" name="f.name" type="text" value=""><input name="f.mail" required type="email" value="">
<input type="checkbox" name="c.guide" value="yes"><input type="checkbox" name="c.wind" value="yes"><input type="checkbox" name="c.more" value="yes">
<input type="hidden" name="h.utm_source" value=""><input type="hidden" name="token" value="t&quot;k">
<input name="leave_empty" tabindex="-1" autocomplete="off"></form><form class="other"><input name="no"></form>`
const who = { address: 'ada@inkpost.example', given: 'Ada', source: 'poster', ticks: 0.4 }

test('a form is filled in as somebody would who sees it', () => {
  const form = readForm(html)!
  expect(form.action).toBe('/s/guide?a=1&b=2')
  expect(Object.fromEntries(fillIn(form, who))).toEqual({
    ...{ 'f.name': 'Ada', 'f.mail': 'ada@inkpost.example', 'c.guide': 'yes', 'c.wind': 'yes' },
    ...{ 'h.utm_source': 'poster', token: 't"k', leave_empty: '' },
  })
  expect([...fillIn(form, { ...who, ticks: 0.1 }).keys()]).toContain('c.more')
  expect([...fillIn(form, { ...who, ticks: 0.8 }).keys()]).not.toContain('c.wind')
})

test('what was meant is read from the question; a page without a form has none', () => {
  const asked = html.replace(
    '</form>',
    '<button name="meant" value="ada@inkpost.example">Yes</button></form>',
  )
  expect(readForm(asked)?.meant).toBe('ada@inkpost.example')
  expect(readForm(html)?.meant).toBeNull()
  expect(readForm('<p>Closed.</p>')).toBeNull()
})
