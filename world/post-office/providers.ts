import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
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
  /** Mailboxes that are full on any one day. */
  full: number
  /** Mailboxes that anybody looks into. */
  reads: number
  /** In which shape it writes that a message came back; one of these for each mailbox. */
  shapes: readonly BounceShape[]
  /** Of what was delivered: what its people complain about (more of it where mail is unwanted), answer, and are away for. */
  complaints: number
  replies: number
  away: number
  /** Of what was opened: what is opened again later, and what is passed on to somebody else. */
  reopens: number
  forwards: number
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

/** How servers write that a message came back: as a report (RFC 3464), or in words of their own. */
export type BounceShape = 'report' | 'words' | 'returned' | 'German'

const usual: Omit<Provider, 'name' | 'domain'> = {
  perMinute: 200_000,
  unknown: 0.004,
  bouncesLater: false,
  greylists: 0,
  full: 0,
  reads: 1,
  shapes: ['report'],
  complaints: 1 / 4_000,
  replies: 1 / 1_000,
  away: 1 / 100,
  reopens: 1 / 3,
  forwards: 1 / 200,
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
    full: 0.001,
    reportsComplaints: true,
    junk: 'Driftwood',
  },
  {
    ...usual,
    name: 'Inkpost',
    domain: 'inkpost.example',
    full: 0.001,
    greylists: 0.03,
    reportsComplaints: true,
  },
  {
    ...usual,
    name: 'Oldmill Mail',
    domain: 'oldmill.example',
    unknown: 0.02,
    bouncesLater: true,
    full: 0.003,
    shapes: ['report', 'words', 'returned', 'German'],
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

/** The habits that can be changed, each a share, and what each is. */
export const changeable = {
  unknown: 'mailboxes that do not exist',
  full: 'mailboxes that are full, on any one day',
  reads: 'mailboxes that anybody looks into',
  greylists: 'first attempts that are asked to come again',
  complaints: 'of what was delivered: complained about',
  replies: 'of what was delivered: answered by a person',
  away: 'of what was delivered: answered because somebody is away',
  reopens: 'of what was opened: opened again',
  forwards: 'of what was opened: passed on',
} as const
export type Changeable = keyof typeof changeable

/** Changes habits of a provider: what is a share is taken, the rest left. Whether there is such a provider. */
export function changeProvider(domain: string, change: Record<string, unknown>): boolean {
  const provider = providers.find((one) => one.domain === domain)
  if (!provider) return false
  for (const key of Object.keys(changeable) as Changeable[]) {
    const value = Number(change[key])
    if (change[key] !== undefined && change[key] !== '' && value >= 0 && value <= 1)
      provider[key] = value
  }
  return true
}

/** Reads habits that were changed before, from a file that need not be there, and keeps in it what is changed from now on. */
export function keepProviders(file: string | null): { save: () => void } {
  if (file && existsSync(file))
    for (const [domain, change] of Object.entries(
      JSON.parse(readFileSync(file, 'utf8')) as Record<string, Record<string, unknown>>,
    ))
      changeProvider(domain, change)
  return {
    save() {
      if (!file) return
      const kept = providers.map((one) => [
        one.domain,
        Object.fromEntries((Object.keys(changeable) as Changeable[]).map((key) => [key, one[key]])),
      ])
      // Whole or not at all, whenever the world is ended.
      writeFileSync(`${file}.new`, JSON.stringify(Object.fromEntries(kept), null, 2), {
        mode: 0o600,
      })
      renameSync(`${file}.new`, file)
    },
  }
}

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

/** Whether a mailbox is full on the day of a time. */
export function mailboxIsFull(address: string, at: number): boolean {
  return chanceOf('full', address, Math.floor(at / 86_400_000)) < providerOf(address).full
}

/** In which shape a message for an address comes back. */
export function shapeFor(address: string): BounceShape {
  const { shapes } = providerOf(address)
  return shapes[Math.floor(chanceOf('shape', address) * shapes.length)]!
}
