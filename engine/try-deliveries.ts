import { nextLook, TRIAL_ENDS } from '../core/delivery'
import { changeTrial, takeTrial, trialsToLookFor, type TrialLetter } from '../database/mailings'
import type { Engine, Work } from './engine'
import { lookInto } from './mailbox'
import { sendLetter } from './send-letter'

/** Longer than one look may take, so that no other engine looks meanwhile. */
const LOOKING = 30_000

/** Sends letters to trial mailboxes, and looks where they came to. */
export const tryDeliveries: Work = async (engine) => {
  const sent = await sendNext(engine)
  const looked = await lookForSent(engine)
  return sent || looked
}

async function sendNext(engine: Engine): Promise<boolean> {
  const { db, hostClock } = engine
  const trial = takeTrial(db, hostClock())
  if (!trial) return false
  const letter = JSON.parse(trial.letter!) as TrialLetter
  const messageId = messageIdFor(trial, engine)
  const headers = { ...letter.headers, 'Message-ID': messageId }
  try {
    await sendLetter(engine, [trial.address], { ...letter, headers })
    const now = hostClock()
    changeTrial(db, trial, {
      ...{ state: 'sent', letter: null, message_id: messageId },
      ...{ sent_host: now, next_look_host: now + nextLook(0) },
    })
  } catch (error) {
    changeTrial(db, trial, { state: 'refused', letter: null, words: (error as Error).message })
  }
  return true
}

/** The same for a letter that is sent a second time, because an engine was ended before it could tell. */
function messageIdFor(
  trial: { mailing_id: number; mailbox_id: number; asked_at: number; address: string },
  { settings }: Engine,
): string {
  const { hostname } = new URL(settings.url)
  return `<trial-${trial.mailing_id}-${trial.mailbox_id}-${trial.asked_at.toString(36)}@${hostname}>`
}

/** One look into each mailbox for what it should have. */
async function lookForSent({ db, hostClock, settings }: Engine): Promise<boolean> {
  const due = trialsToLookFor(db, hostClock(), LOOKING)
  await Promise.all(
    [...new Set(due.map(({ mailbox_id }) => mailbox_id))].map(async (mailbox) => {
      const trials = due.filter(({ mailbox_id }) => mailbox_id === mailbox)
      const ids = trials.map(({ message_id }) => message_id!)
      const looked = await lookInto(trials[0]!, ids, settings).catch((error: Error) => error)
      const now = hostClock()
      for (const trial of trials) {
        const found = looked instanceof Error ? null : looked.get(trial.message_id!)
        const since = now - trial.sent_host!
        if (found) changeTrial(db, trial, { ...found, found_host: now })
        else {
          const words = looked instanceof Error ? looked.message : null
          const over = since >= TRIAL_ENDS ? (words ? 'closed' : 'missing') : 'sent'
          changeTrial(db, trial, {
            ...{ state: over, words },
            next_look_host: now + nextLook(since),
          })
        }
      }
    }),
  )
  return due.length > 0
}
