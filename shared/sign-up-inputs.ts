import { array, boolean, mixed, number, object, string } from 'yup'
import { line } from './input-parts'

/** What is told of sign-ups. */

const signUpName = line(100).required('Give the sign-up a name.')
const revision = () => number().integer().positive().required()

export const newSignUpInput = object({ name: signUpName, template: string().max(40).required() })

export const signUpInput = object({
  name: signUpName,
  form: mixed<object>().required(),
  revision: revision(),
})

/** Which call to a webhook is sent again. */
export const callAgainInput = object({ call: number().integer().positive().required() })

/** Which revision was seen by who publishes it. */
export const signUpPublishInput = object({
  revision: revision(),
  /** Beside what stands, by lot, rather than instead of it. */
  asTest: boolean().default(false),
})

/** Which version is kept as a test ends; null: what stood. */
export const endTestInput = object({
  keep: number().integer().positive().nullable().default(null),
})

export const sendingsInput = object({
  what: string().oneOf(['let-through', 'drop']).required(),
  ids: array(number().integer().positive().required())
    .min(1, 'Choose one at least.')
    .max(200, 'At most 200 at once.')
    .required(),
})
