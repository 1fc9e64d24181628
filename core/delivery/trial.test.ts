import { expect, test } from 'vitest'
import { isJunkFolder, nextLook, providerSays, TRIAL_ENDS } from './trial'

test('what a provider says of the sender is read from the topmost header, with folds and comments', () => {
  const headers = [
    'Return-Path: <b@galewright.example>',
    'Authentication-Results: mx.inkpost.example;',
    '\tspf=pass (dkim=fail is only a comment) smtp.mailfrom=b@galewright.example;',
    '  DKIM = Fail header.d=galewright.example; dmarc=none',
    'Filter-Notes: subject in capitals (2);',
    ' says winner (1)',
    'Authentication-Results: forged.example; spf=fail; dkim=pass; dmarc=pass',
    'Subject: spf=none',
  ].join('\r\n')
  expect(providerSays(headers)).toEqual({
    spf: 'pass',
    dkim: 'fail',
    dmarc: 'none',
    words: 'subject in capitals (2); says winner (1)',
  })
  expect(providerSays('Subject: Wind\r\n')).toEqual({
    spf: null,
    dkim: null,
    dmarc: null,
    words: null,
  })
  expect(providerSays('Authentication-Results: mx.example; none').spf).toBeNull()
})

test.each([
  [{ path: 'Driftwood', use: '\\Junk' }, true],
  [{ path: 'Junk mail', use: null }, true],
  [{ path: 'INBOX.Spam', use: null }, true],
  [{ path: 'Spam recipes', use: '\\Archive' }, false],
  [{ path: 'Adjunkt', use: null }, false],
])('%j is a folder for junk: %s', (folder, is) => expect(isJunkFolder(folder)).toBe(is))

test('a mailbox is looked into soon, then less and less often, and not for ever', () => {
  let looks = 0
  for (let at = 0; at < TRIAL_ENDS; at += nextLook(at)) looks++
  expect(nextLook(0)).toBe(1_000)
  expect(nextLook(TRIAL_ENDS)).toBe(30_000)
  expect(looks).toBeGreaterThan(10)
  expect(looks).toBeLessThan(30)
})
