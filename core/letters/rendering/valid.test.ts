import { HtmlValidate } from 'html-validate'
import { expect, test } from 'vitest'
import type { Letter } from '../document'
import { defaultLetterhead } from '../letterhead'
import { templates } from '../templates'
import { compileLetter, mergeLetter, personContext } from '.'
import { asDrawnBy, renderings } from './renderings'
import { madeUpFrame } from './made-up'

/** What mail has to do in its own way: attributes and tables of old for the layout, styles on every tag. */
const html = new HtmlValidate({
  extends: ['html-validate:standard'],
  rules: {
    'no-deprecated-attr': 'off',
    'no-inline-style': 'off',
    'attribute-boolean-style': 'off',
    'attribute-empty-style': 'off',
    'void-style': 'off',
    'no-trailing-whitespace': 'off',
    'doctype-style': 'off',
    'no-conditional-comment': 'off',
    'tel-non-breaking': 'off',
    'prefer-native-element': 'off',
    'attr-quotes': 'off',
    'long-title': 'off',
    'no-implicit-button-type': 'off',
  },
})
const frame = {
  ...madeUpFrame,
  letterhead: { ...defaultLetterhead, logo: '/p/logo' },
  senderName: 'Galewright & Daughters',
}

test.each(templates)('$name is valid HTML in every rendering', async ({ letter }) => {
  const compiled = await compileLetter(withPictures(letter), frame)
  const context = personContext(
    { address: 'tove@inkpost.example', values: { first_name: 'Tove "Wind" <b>' } },
    { list: 'Wind notes', sender: 'Galewright', mailing: 'm' },
  )
  const merged = mergeLetter(compiled, context)
  for (const { key } of renderings) {
    const report = await html.validateString(asDrawnBy(key, merged.html))
    const said = report.results.flatMap(({ messages }) =>
      messages.map(({ ruleId, message, line }) => `${key} ${line}: ${ruleId}: ${message}`),
    )
    expect(said).toEqual([])
  }
})

function withPictures(letter: Letter): Letter {
  return JSON.parse(JSON.stringify(letter).replaceAll('"src":""', '"src":"/p/a"')) as Letter
}
