import { defaultLetterhead } from '../letterhead'
import type { LetterFrame } from './frame'

/** What letters are rendered with in tests. */
export const madeUpFrame: LetterFrame = {
  letterhead: defaultLetterhead,
  postalAddress: '1 Slipway, Sandreach',
  senderName: 'Galewright Kites',
  listName: 'Wind notes',
  footer: { language: 'en', unsubscribe: 'Unsubscribe', yourPage: 'Change what you get' },
  url: 'https://mail.galewright.example',
}
