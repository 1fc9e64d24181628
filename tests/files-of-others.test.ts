import { readdirSync, readFileSync } from 'node:fs'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { readLetterFile } from '../core/letters/incoming'
import { withStylesInline } from '../core/letters/incoming/inline-styles'
import { letterSource } from '../core/letters/rendering'
import { mjmlToHtml } from '../core/letters/rendering/compile'
import { madeUpFrame } from '../core/letters/rendering/made-up'
import { visit, type Visitor } from './browser'

/**
 * Letters that others made, as Chromium draws them, before and after they are brought in: for each piece of text its colour,
 * what is behind it, font, size, weight, alignment and share of the width, the line around it, the space above it (within
 * 8 px), where its link leads; of each picture that it is there, where it leads and its share of the width; of each button
 * its colour and corners. At least nine of ten stay.
 */
let visitor: Visitor
beforeAll(async () => {
  visitor = await visit()
  const body = Buffer.from('R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7', 'base64')
  await visitor.page.route('**/*', (route) =>
    route.request().resourceType() === 'image'
      ? route.fulfill({ body, contentType: 'image/gif' })
      : route.abort(),
  )
  await visitor.page.setViewportSize({ width: 700, height: 900 })
})
afterAll(() => visitor.close())

/** What is seen of one thing: by its words, or its source. */
type Seen = Record<string, Record<string, string | number>>

async function draw(html: string): Promise<Seen> {
  await visitor.page.setContent(html, { waitUntil: 'load' })
  return (await visitor.page.evaluate(LOOK)) as Seen
}

/** Runs in the page: plain text, since what is compiled for tests is not there. */
const LOOK = `(() => {
  const seen = {}
  const put = (key, values) => { if (!(key in seen)) seen[key] = values }
  const groundOf = (element) => {
    for (let at = element; at; at = at.parentElement) {
      const style = getComputedStyle(at)
      if (style.backgroundImage !== 'none' && style.backgroundImage.includes('url')) return 'picture'
      const color = style.backgroundColor
      if (color !== 'rgba(0, 0, 0, 0)' && color !== 'transparent') return color
    }
    return 'rgb(255, 255, 255)'
  }
  const blockOf = (element) => {
    let at = element
    while (at.parentElement && getComputedStyle(at).display.startsWith('inline') && !getComputedStyle(at).display.includes('block')) at = at.parentElement
    return at
  }
  const letterWidth = Math.max(...[...document.querySelectorAll('body *')].map((one) => one.getBoundingClientRect().width).filter((w) => w > 300 && w <= 650), 0) || document.body.clientWidth
  // The line around what something stands in, and the space between it and its ground's upper edge or what is above it.
  const borderOf = (element) => {
    for (let at = element; at && at.getBoundingClientRect().width <= letterWidth + 40; at = at.parentElement) {
      const style = getComputedStyle(at)
      const sides = ['Top', 'Right', 'Bottom', 'Left'].map((side) => style['border' + side + 'Style'] !== 'none' ? parseFloat(style['border' + side + 'Width']) : 0)
      if (sides.every((px) => px > 0)) return sides[0] + ' ' + style.borderTopColor
    }
    return 'none'
  }
  const boxes = []
  const airOf = (box) => {
    const above = boxes.filter((one) => one.bottom <= box.top + 3 && one.left < box.right && one.right > box.left)
    const bottom = Math.max(...above.map((one) => one.bottom), -Infinity)
    boxes.push(box)
    return bottom === -Infinity ? 0 : Math.round(box.top - bottom)
  }
  const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    const words = node.data.replace(/\\s+/g, ' ').trim()
    const element = node.parentElement
    const box = element.getBoundingClientRect()
    if (words.length < 4 || box.width === 0 || box.height < 2 || element.closest('style, script, title')) continue
    const style = getComputedStyle(element)
    if (style.visibility === 'hidden' || style.opacity === '0') continue
    const link = element.closest('a')
    const align = getComputedStyle(blockOf(element)).textAlign
    const range = document.createRange()
    range.selectNodeContents(node)
    put('words ' + words, {
      font: style.fontFamily.split(',')[0].replace(/["']/g, '').trim().toLowerCase(),
      border: borderOf(element),
      air: airOf(range.getBoundingClientRect()),
      colour: style.color,
      ground: groundOf(element),
      size: Math.round(parseFloat(style.fontSize)),
      weight: Number(style.fontWeight) >= 600 ? 'bold' : 'plain',
      align: { start: 'left', '-webkit-center': 'center', '-webkit-left': 'left', '-webkit-right': 'right', end: 'right' }[align] ?? align,
      link: link ? link.getAttribute('href') : '',
      place: Math.round((box.left - (innerWidth - letterWidth) / 2) / letterWidth * 4),
    })
    if (link && getComputedStyle(link).backgroundColor !== 'rgba(0, 0, 0, 0)')
      put('corners ' + words, { corners: getComputedStyle(link).borderTopLeftRadius })
  }
  for (const image of document.images) {
    // Arrows by which a program turns pages are no pictures of the letter.
    if (image.getBoundingClientRect().width < 3 || ['previous', 'next'].includes(image.alt)) continue
    put('picture ' + image.getAttribute('src'), {
      there: 'yes',
      alt: image.alt,
      link: image.closest('a') ? image.closest('a').getAttribute('href') : '',
      share: Math.round(image.getBoundingClientRect().width / letterWidth * 4),
    })
  }
  return seen
})()`

test('of forty letters of others, nine of ten things that one sees stay as they were', async () => {
  const folder = 'tests/files-of-others'
  const files = readdirSync(folder).toSorted()
  expect(files).toHaveLength(40)
  let [kept, all] = [0, 0]
  const lost: string[] = []
  for (const file of files) {
    const text = readFileSync(`${folder}/${file}`, 'utf8')
    const before = await draw(file.endsWith('.mjml') ? await mjmlToHtml(text) : text)
    const got = readLetterFile(text, withStylesInline)
    if ('problem' in got) throw new Error(`${file}: ${got.problem}`)
    const after = await draw(await letterSource(got.letter, madeUpFrame, 'html'))
    for (const [key, values] of Object.entries(before))
      for (const [what, value] of Object.entries(values)) {
        // Where a file names no font, the one that HTML and MJML then take is no choice of its author's.
        if (what === 'font' && ['times new roman', 'ubuntu'].includes(String(value))) continue
        all++
        const now = after[key]?.[what]
        const close =
          typeof value === 'number' && typeof now === 'number'
            ? Math.abs(value - now) <= (what === 'air' ? 8 : 1)
            : now === value
        if (close) kept++
        else lost.push(`${file}: ${what} of “${key}” was ${value}, is ${now ?? 'not there'}`)
      }
  }
  if (process.env.SHOW_LOST) console.log(lost.join('\n'), kept, all)
  expect(all).toBeGreaterThan(500)
  expect(kept / all, lost.slice(0, 60).join('\n')).toBeGreaterThanOrEqual(0.9)
})
