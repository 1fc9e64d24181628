import { expect, test } from 'vitest'
import { dayIn, fillWords, isReaderLanguage, placesIn, readerLanguages, wordsIn } from '.'

test('no language lacks a word, and each fills in what English does', () => {
  const { en, ...others } = readerLanguages
  expect(Object.keys(others)).toEqual(['de', 'fr', 'es', 'nl', 'it'])
  for (const [language, words] of Object.entries(others)) {
    expect([language, Object.keys(words)]).toEqual([language, Object.keys(en)])
    for (const [name, text] of Object.entries(words)) {
      expect([language, name, text.trim()]).toEqual([language, name, text])
      expect(text).not.toBe('')
      const english = placesIn(en[name as keyof typeof en])
      expect([language, name, placesIn(text)]).toEqual([language, name, english])
    }
    // Words that were forgotten would still be the English ones.
    const same = Object.entries(words).filter(
      ([name, text]) => text === en[name as keyof typeof en],
    )
    expect([language, same.map(([name]) => name)]).toEqual([
      language,
      same.filter(([, text]) => text === 'no').map(([name]) => name),
    ])
  }
})

test('words are filled in and can be changed; a day is written as its language does', () => {
  expect(fillWords('{sender} schreibt an {address}.', { sender: 'Wir', address: '$&' })).toBe(
    'Wir schreibt an $&.',
  )
  expect(wordsIn('de', { unsubscribe: 'Nichts mehr' })).toMatchObject({
    unsubscribe: 'Nichts mehr',
    atOnce: 'Es gilt sofort.',
  })
  expect(dayIn('fr', Date.UTC(2026, 4, 3, 23, 30), 'Europe/London')).toBe('4 mai 2026')
  expect(isReaderLanguage('nl')).toBe(true)
  expect(isReaderLanguage('toString')).toBe(false)
})
