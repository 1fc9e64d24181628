import { expect, test } from 'vitest'
import { misspelt, wordsToCheck } from '.'

const none = new Set<string>()

test('what no dictionary knows is found, with what it might be', () => {
  const found = misspelt(['You will recieve the forcast on Friday.'], none)
  expect(found.map(({ word }) => word)).toEqual(['recieve', 'forcast'])
  expect(found[0]!.suggestions).toContain('receive')
  expect(found[1]!.suggestions).toContain('forecast')
})

test('British and American spellings are both right; one’s own words are, too', () => {
  expect(misspelt(['The colour and the color, to organise or to organize'], none)).toEqual([])
  expect(misspelt(['Fly the galewright today'], new Set(['galewright']))).toEqual([])
  expect(misspelt(['Fly the galewright today'], none)).toHaveLength(1)
})

test('names, addresses, numbers and capitals are no words to check; the first of a sentence is', () => {
  expect(
    wordsToCheck('Ask Tove at tove@inkpost.example or www.kites.example by 21st of MARCH'),
  ).toEqual(['Ask', 'Tove', 'kites', 'example'].filter((word) => word === 'Ask'))
  expect(wordsToCheck('Wnid is up. Hte beach')).toEqual(['Wnid', 'Hte', 'beach'])
  expect(wordsToCheck('well-made, the flyers’ own')).toEqual([
    'well',
    'made',
    'the',
    'flyers',
    'own',
  ])
})

test('a letter in another language is not called misspelt word by word', () => {
  expect(
    misspelt(['Der Wind weht morgen den ganzen Tag kräftig aus Westen über die Küste'], none),
  ).toEqual([])
})
