import { chanceOf } from '../chance'

/** A mailbox provider and its habits. Shares are of mailboxes or messages, in 0..1. */
export interface Provider {
  name: string
  domain: string
  /** Messages a minute it takes from one sender before it asks to slow down. */
  perMinute: number
  /** Mailboxes that do not exist. */
  unknown: number
  /** Whether it says so at once, or takes the message and reports later. */
  bouncesLater: boolean
  /** First attempts that it asks to come again. */
  greylists: number
  /** Whether it passes complaints on (ARF). */
  reportsComplaints: boolean
  /** Fetches every picture itself on arrival. */
  prefetches: boolean
  /** Looks at every link before the reader does. */
  scansLinks: boolean
  /** What it calls the folder for what it does not trust, and from how many points on a message goes there. */
  junk: string
  junkFrom: number
}

const usual: Omit<Provider, 'name' | 'domain'> = {
  perMinute: 200_000,
  unknown: 0.004,
  bouncesLater: false,
  greylists: 0,
  reportsComplaints: false,
  prefetches: false,
  scansLinks: false,
  junk: 'Junk',
  junkFrom: 5,
}

export const providers: Provider[] = [
  {
    ...usual,
    name: 'Harbourmail',
    domain: 'harbourmail.example',
    reportsComplaints: true,
    junk: 'Driftwood',
  },
  {
    ...usual,
    name: 'Inkpost',
    domain: 'inkpost.example',
    greylists: 0.03,
    reportsComplaints: true,
  },
  {
    ...usual,
    name: 'Oldmill Mail',
    domain: 'oldmill.example',
    unknown: 0.02,
    bouncesLater: true,
    junkFrom: 4,
  },
  {
    ...usual,
    name: 'Workdesk',
    domain: 'workdesk.example',
    scansLinks: true,
    junk: 'Held back',
    junkFrom: 3,
  },
  { ...usual, name: 'Veilpost', domain: 'veilpost.example', prefetches: true },
  // It has closed down, and knows nobody any more.
  { ...usual, name: 'Shutterbox', domain: 'shutterbox.example', unknown: 1 },
]

/** The provider of an address; an unknown domain behaves as usual. */
export function providerOf(address: string): Provider {
  const domain = address.slice(address.indexOf('@') + 1)
  return (
    providers.find((provider) => provider.domain === domain) ?? { ...usual, name: domain, domain }
  )
}

/** Whether a mailbox exists: always the same answer for the same address. */
export function mailboxExists(address: string): boolean {
  return chanceOf('mailbox', address) >= providerOf(address).unknown
}
