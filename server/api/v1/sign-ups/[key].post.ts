import { pathOf, postedOf, takeSending, type SignUpEntry } from '~~/cases/sign-ups'
import { EntryFault } from '~~/database/imports'
import { apiSignUp } from '~~/shared/api-inputs'

/**
 * Takes what a program's own form was filled in with, for a sign-up that is live, by the same rules as if it came from that
 * sign-up's form: what was agreed to, double opt-in, and nothing that tells who is on file.
 */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const live = liveFormOf(event)
  const faults = {
    empty: 'A value is needed here.',
    address: 'This is no address.',
    value: 'This value does not fit.',
    tick: 'Nothing was agreed to.',
    needed: 'The form asks for another consent, without which nobody signs up.',
  }
  return takeApiBatch<SignUpEntry & { language?: string; page?: string; ip?: string }>(
    event,
    apiSignUp,
    (entry) => {
      if (!live) throw new EntryFault('', 'No sign-up is live under this key.')
      const { form, signUp, version } = live
      const language = formLanguage(event, form, entry.language)
      const read = postedOf(form, language, entry)
      if ('problem' in read) throw new EntryFault(read.path, read.problem)
      const came = takeSending(
        db,
        { ...{ form, version, language }, signUpId: signUp.id },
        read.posted,
        {
          // The program answers for its own visitors: it has the account's token.
          ...{ trapped: false, drawnFor: 60_000, proven: true, sure: true },
          work: `program ${crypto.randomUUID()}`,
          ...{ page: pageFrom(entry.page), ip: entry.ip ?? null, agent: null },
        },
        mailboxDomains(),
        clock(),
      )
      if (came.kind === 'too-many') throw new EntryFault('', 'Too many came from this network.')
      if (came.kind === 'wrong') {
        const [partId, fault] = Object.entries(came.faults)[0]!
        throw new EntryFault(pathOf(form, partId), faults[fault])
      }
      return 'added'
    },
  )
})
