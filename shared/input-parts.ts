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
