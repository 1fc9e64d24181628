import { failureOf, statusIn } from '../delivery'
import type { ReceivedMail } from './mail'
import type { Reading } from './read'

/**
 * A bounce, or a note of a delay, in the words of a server to people. Null where it does not come from one, or does not say
 * that something was not delivered.
 */
export function readFreeForm(mail: ReceivedMail): Reading | null {
  if (!isFromServer(mail)) return null
  const words = `${mail.subject}\n${explanationIn(mail.text)}`
  if (!undelivered.test(words)) return null
  const said = answerIn(words)
  const failure = failureOf(statusIn(said || words), said ? `${said}\n${words}` : words)
  const kind = notYet.test(words) && !givenUp.test(words) ? 'delayed' : 'bounced'
  return { kind, failure, answer: said }
}

/** A server writes as one of these, or as nobody (RFC 5321, 4.5.5), or says whom it could not reach. */
function isFromServer(mail: ReceivedMail): boolean {
  const [who = ''] = mail.from.address.split('@')
  return (
    /^(?:mailer-?daemon|mail-?daemon|postmaster|mailer|bounces?|mdaemon)$/.test(who) ||
    who === '' ||
    mail.field('return-path') === '<>' ||
    mail.field('x-failed-recipients') !== ''
  )
}

/** What stands before the letter that came back: its own words explain nothing. */
function explanationIn(text: string): string {
  const lines = text.split('\n')
  const end = lines.findIndex((line) => letterBegins.test(line))
  return (end < 0 ? lines : lines.slice(0, end)).join('\n')
}

const letterBegins =
  /^[\s-]*(?:original message follows|below this line is a copy|this is a copy of the message|this is a copy of your message|unsent message|message header follows)|^(?:return-path|received|dkim-signature):|^> ?(?:from|subject):/i

const undelivered =
  /(?:un(?:able|deliver)|not (?:be |been |yet been )?deliver|wasn.t deliver|couldn.t (?:be )?deliver|could not (?:be )?(?:deliver|send)|deliver[a-z]* (?:[a-z]+ )?(?:has |is |was )?(?:fail|delay|error|incomplete)|failure (?:notice|notification)|fail(?:ed|ure)|returned|return(?:ing)? message|bounce|was not accepted|has been blocked|is unknown here|user unknown|rejected|warning: (?:message|could not)|nicht (?:zugestellt|angenommen)|unzustellbar|fehler bei der|non (?:remis|distribu)|n.a pas pu|[ée]chec de la remise|no (?:se puede|pudo)|error de entrega|devuelto|配信(?:不能|できません)|配信に失敗)/i

const notYet =
  /warning only|warning message only|warning: (?:message|could not)|delay(?:ed)?\b|will (?:be retried|keep trying|retry|continue)|still (?:being|undelivered)|not yet been delivered|hasn.t been delivered yet|weiter versucht|noch nicht zugestellt|sera r[ée]essay|se seguir[áa] intentando|再送/i
const givenUp =
  /given up|gave up|giving up|permanent (?:fatal )?error|will be deleted from queue|not going to try again|(?:is|been|being) returned/i

/** What the other server said: what follows its words for it, or the first line with a reply code or a status. */
function answerIn(words: string): string {
  const said =
    /(?:said|response was|from the remote server was|<<<)[:\s]+((?:[245]\d\d|[^\n]*\b[45]\.\d\.\d)[^\n]*(?:\n[ \t]+[^\n]+|\n[245]\d\d[^\n]*)*)/i.exec(
      words,
    )?.[1] ??
    /^.*(?:\b[45]\d\d[ -]|#[45]\d\d |\(#[45]\.\d{1,3}\.\d{1,3}\)).*(?:\n[ \t]+.+)*/m.exec(
      words,
    )?.[0]
  return (said ?? '').replace(/\s+/g, ' ').trim().slice(0, 500)
}
