import { withAct, type Keenness } from '../standing'
import type { MailFact, PersonFacts, SequenceFact, SubscriptionFact } from './person-facts'

/**
 * What was known of a person at an earlier moment, as far as it has a time: mail, orders, events,
 * subscriptions, engagement. Values and tags have none and stay as they are. Null: not on file yet.
 */
export function factsAsOf(person: PersonFacts, at: number): PersonFacts | null {
  if (person.joinedAt > at) return null
  const until = (time: number | null) => (time !== null && time <= at ? time : null)
  const mail = person.mail.flatMap((one): MailFact[] => {
    const acceptedAt = until(one.acceptedAt)
    if (acceptedAt === null && (one.acceptedAt !== null || one.at > at)) return []
    const later = one.at > at
    return [
      {
        ...one,
        // It was accepted before it bounced or was complained about.
        state: later && acceptedAt !== null ? 'accepted' : one.state,
        at: later ? acceptedAt! : one.at,
        acceptedAt,
        openedAt: until(one.openedAt),
        clickedAt: until(one.clickedAt),
        leftAt: until(one.leftAt),
        repliedAt: until(one.repliedAt),
      },
    ]
  })
  const orders = person.orders.filter((order) => order.at <= at)
  return {
    ...person,
    mail,
    orders,
    clicks: person.clicks.filter((click) => click.at <= at),
    events: person.events.filter((event) => event.at <= at),
    subscriptions: new Map(
      [...person.subscriptions].flatMap(([listId, fact]) => {
        const then = subscriptionAsOf(fact, at)
        return then ? [[listId, then]] : []
      }),
    ),
    sequences: new Map(
      [...person.sequences].flatMap(([id, rounds]): [number, SequenceFact[]][] => {
        const then = rounds
          .filter(({ enteredAt }) => enteredAt <= at)
          .map((been): SequenceFact =>
            been.endedAt !== null && been.endedAt > at
              ? { ...been, state: 'inside', endedAt: null }
              : been,
          )
        return then.length ? [[id, then]] : []
      }),
    ),
    signUps: person.signUps.filter((one) => one.at <= at),
    keenness: keennessOf(mail, orders),
    suppressed: person.suppressed && person.suppressed.at <= at ? person.suppressed : null,
    pause: person.pause && person.pause.at <= at ? person.pause : null,
  }
}

function subscriptionAsOf(fact: SubscriptionFact, at: number): SubscriptionFact | undefined {
  if (fact.since <= at) return fact
  return fact.earlier?.findLast(({ since }) => since <= at)
}

function keennessOf(mail: readonly MailFact[], orders: readonly { at: number }[]): Keenness {
  let keenness: Keenness = null
  for (const { openedAt, clickedAt, repliedAt } of mail) {
    if (openedAt !== null) keenness = withAct(keenness, 'open', openedAt)
    if (clickedAt !== null) keenness = withAct(keenness, 'click', clickedAt)
    if (repliedAt !== null) keenness = withAct(keenness, 'reply', repliedAt)
  }
  for (const { at } of orders) keenness = withAct(keenness, 'order', at)
  return keenness
}
