import { expect, test } from 'vitest'
import { framed } from './framed'

test('a letter in a frame has its policy before anything of its own', () => {
  const html =
    '<!doctype html><html><head lang="en"><style>a{}</style></head><body>$&</body></html>'
  expect(framed(html)).toMatch(
    /^<!doctype html><html><head lang="en"><meta http-equiv="Content-Security-Policy" content="default-src 'none'.*"><style>/,
  )
  expect(framed(html)).toContain('<body>$&</body>')
  expect(framed('<p>Wind</p>')).toMatch(/^<meta .*><p>Wind<\/p>$/)
})
