import { isIP } from 'node:net'
import { ImapFlow } from 'imapflow'
import { addressesToReach, type Reach } from './reach'
import { isJunkFolder, providerSays, type ProviderSays } from '../core/delivery'
import type { TrialMailbox } from '../database/mailings'

/** Where a message lies, and what the provider wrote above it. */
export interface Found extends ProviderSays {
  state: 'inbox' | 'junk'
  folder: string
}

/**
 * Looks for messages by their ids in the inbox and the folders for junk of one mailbox, over IMAP (RFC 3501). What is not
 * there is absent. Throws, with a sentence, where the mailbox can't be opened. Nothing in the mailbox is changed.
 */
export async function lookInto(
  mailbox: Pick<TrialMailbox, 'host' | 'port' | 'secure' | 'login' | 'password'>,
  messageIds: readonly string[],
  reach: Reach,
): Promise<Map<string, Found>> {
  const { host, port, login, password } = mailbox
  const [checked] = await addressesToReach(host, port, reach).catch((error: Error) => {
    throw new Error(`${host}:${port} could not be read: ${error.message}`, { cause: error })
  })
  const client = new ImapFlow({
    host: checked!.address,
    ...(isIP(host) ? {} : { servername: host }),
    port,
    secure: mailbox.secure === 1,
    auth: { user: login, pass: password },
    logger: false,
    connectionTimeout: 10_000,
    greetingTimeout: 10_000,
    socketTimeout: 20_000,
  })
  // A line that breaks makes the call under way fail as well; that is where it is told.
  client.on('error', () => {})
  const found = new Map<string, Found>()
  try {
    await client.connect()
    for (const { path, specialUse } of await client.list()) {
      const junk = isJunkFolder({ path, use: specialUse ?? null })
      if (!junk && path.toUpperCase() !== 'INBOX') continue
      await client.mailboxOpen(path, { readOnly: true })
      for (const id of messageIds) {
        const [uid] = (await client.search({ header: { 'message-id': id } }, { uid: true })) || []
        const message = uid && (await client.fetchOne(`${uid}`, { headers: true }, { uid: true }))
        if (message)
          found.set(id, {
            state: junk ? 'junk' : 'inbox',
            folder: path,
            ...providerSays(message.headers?.toString('utf8') ?? ''),
          })
      }
    }
    return found
  } catch (error) {
    throw new Error(whyNot(error, `${host}:${port}`), { cause: error })
  } finally {
    await client.logout().catch(() => client.close())
  }
}

function whyNot(error: unknown, where: string): string {
  const { authenticationFailed, responseText, message } = error as Error & {
    authenticationFailed?: boolean
    responseText?: string
  }
  if (authenticationFailed) return `${where} does not let us in: ${responseText ?? message}`
  return `${where} could not be read: ${responseText ?? message}`
}
