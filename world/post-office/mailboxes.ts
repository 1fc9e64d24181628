/** Where a provider put a message. */
export type Folder = 'inbox' | 'junk'

/** A message as it lies in a mailbox. The source of old ones is forgotten, that they came is not. */
export interface Mail {
  no: number
  address: string
  from: string
  subject: string
  messageId: string
  at: number
  folder: Folder
  source: string | null
}

const keepSources = 1_500

/** Every mailbox of the practice world, in memory. */
export class Mailboxes {
  private mails: Mail[] = []

  put(mail: Omit<Mail, 'no'>): Mail {
    const put = { ...mail, no: this.mails.length }
    this.mails.push(put)
    const old = this.mails[put.no - keepSources]
    if (old) old.source = null
    return put
  }

  get(no: number): Mail | undefined {
    return this.mails[no]
  }

  get count() {
    return this.mails.length
  }

  /** The latest mails, newest first; those of one address if it is named. */
  latest(most: number, address?: string): Mail[] {
    const found: Mail[] = []
    for (let i = this.mails.length - 1; i >= 0 && found.length < most; i--)
      if (!address || this.mails[i]!.address === address) found.push(this.mails[i]!)
    return found
  }

  /** What lies in one folder of an address and can still be read, the oldest first. */
  within(address: string, folder: Folder): Mail[] {
    return this.mails
      .slice(-keepSources)
      .filter((mail) => mail.address === address && mail.folder === folder)
  }

  /** Address and message id of every mail that ever came. */
  all(): { address: string; messageId: string; subject: string }[] {
    return this.mails.map(({ address, messageId, subject }) => ({ address, messageId, subject }))
  }
}
