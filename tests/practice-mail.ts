import { simpleParser, type ParsedMail } from 'mailparser'
import { until, type Installation } from './installation'

/** A mail that comes to an address in the practice world, as soon as it is there; the latest of its subject. */
export async function mailTo(
  { worldUrl }: Installation,
  address: string,
  subject: string | RegExp,
): Promise<ParsedMail> {
  let found: ParsedMail | undefined
  await until(`“${String(subject)}” goes to ${address}`, async () => {
    for (let i = 0; ; i++) {
      const answer = await fetch(`${worldUrl}/mail/${i}.eml`)
      if (!answer.ok) break
      const mail = await simpleParser(Buffer.from(await answer.arrayBuffer()))
      const to = [mail.to].flat().map((one) => one?.text)
      const said = mail.subject ?? ''
      const fits = typeof subject === 'string' ? said === subject : subject.test(said)
      if (fits && to.includes(address)) found = mail
    }
    return found !== undefined
  })
  return found!
}
