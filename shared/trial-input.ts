import { boolean, number, object, string, type InferType } from 'yup'
import { checkAddress } from '../core/people'

/** A mailbox of one's own at a provider, and how it is opened (IMAP). */
export const trialMailboxInput = object({
  address: string()
    .trim()
    .lowercase()
    .required('Write the mailbox’s address.')
    .test('address', 'This is not an e-mail address.', (text) => checkAddress(text ?? '').ok),
  host: string()
    .trim()
    .required('Write the name of the provider’s IMAP server.')
    .max(253, 'At most 253 characters.')
    .matches(/^[\w.:-]+$/, {
      message: 'This is not the name of a server.',
      excludeEmptyString: true,
    }),
  port: number()
    .typeError('A whole number.')
    .integer('A whole number.')
    .min(1, 'At least 1.')
    .max(65_535, 'At most 65,535.')
    .required('Write the port; 993 is usual.'),
  secure: boolean().required(),
  login: string().trim().required('Write the name to log in with.').max(320, 'Too long.'),
  password: string().required('Write its password.').max(500, 'At most 500 characters.'),
})
export type TrialMailboxInput = InferType<typeof trialMailboxInput>
