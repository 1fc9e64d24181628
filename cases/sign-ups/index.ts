/** What is done with a sign-up's form: what is sent in is taken, confirmed and mailed; and what the form still lacks. */
export { takeSending, type Circumstances, type SeenForm, type Taken } from './take'
export { confirmSending, isPromised, type Confirmed } from './confirm'
export { mailBy, promisedLink, signUpMail, type MailReader, type WrittenMail } from './mail'
export { marksOf } from './marks'
export { pathOf, postedOf, type SignUpEntry } from './entry'
export { teamMail } from './team-mail'
