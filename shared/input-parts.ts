import { string } from 'yup'
import { checkAddress } from '../core/people'

/** An e-mail address. */
export const address = string()
  .trim()
  .required('Write an e-mail address.')
  .test('address', 'This is not an e-mail address.', (text) => checkAddress(text ?? '').ok)

/** One line of text of at most so many characters. */
export const line = (longest: number) =>
  string()
    .trim()
    .max(longest, `At most ${longest} characters.`)
    .matches(/^[^\p{Cc}]*$/u, 'No line breaks or control characters, please.')

/** The version of a thing that its editor saw; see markOf in database/versions.ts. */
export const seenVersion = string()
  .required('Say which version you saw.')
  .max(40, 'This is no version.')
