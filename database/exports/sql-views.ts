import { totalWords } from '../../core/counting'
import type { Field } from '../../core/people'

/** What can be asked in SQL: a view with its columns, each explained. Times are UTC, "2026-11-23 09:40:00". */
export interface SqlView {
  name: string
  about: string
  columns: Record<string, string>
}

/** A view with how each column is made from the tables, which stand under `from` in schema `db`. */
interface Definition extends SqlView {
  made: Record<string, string>
  from(db: string): string
}

const time = (column: string) => `datetime(${column} / 1000, 'unixepoch')`

/** The views over everything one may ask about, with a column in `people` for each field of the account. */
export function sqlViews(fields: readonly Pick<Field, 'key' | 'name' | 'kind'>[]): Definition[] {
  const own = fields.filter(({ key }) => key !== 'first_name' && key !== 'last_name')
  return [
    view(
      'people',
      'Everybody on file',
      (db) => `${db}.people p join ${db}.facts f on f.person_id = p.id`,
      {
        id: ['p.id', 'number of the person'],
        address: ['p.address', 'e-mail address'],
        domain: ['p.domain', 'what stands behind the @'],
        first_name: ['p.first_name', 'first name'],
        last_name: ['p.last_name', 'last name'],
        joined: [time('p.joined_at'), 'on file since'],
        sent_mailings: ['f.sent', 'mailings taken for them'],
        opened_mailings: ['f.opened', 'mailings they opened'],
        clicked_mailings: ['f.clicked', 'mailings they clicked in'],
        last_opened: [time('f.last_opened_at'), 'when they last opened one'],
        order_count: ['f.orders', 'orders'],
        spent_minor: ['f.spent', 'money spent, in minor units (9400 is 94.00)'],
        ...Object.fromEntries(
          own.map(({ key, name, kind }): [string, [string, string]] => [
            taken.has(key) ? `field_${key}` : key,
            [
              `json_extract(p.fields, '$.${key}')`,
              `${name} (${kind === 'choices' ? 'a JSON list' : kind})`,
            ],
          ]),
        ),
      },
    ),
    view(
      'person_tags',
      'Who has which tag',
      (db) => `${db}.person_tags pt join ${db}.tags t on t.id = pt.tag_id`,
      { person_id: ['pt.person_id', 'the person'], tag: ['t.name', 'the tag'] },
    ),
    view(
      'subscriptions',
      'Who is on which list',
      (db) => `${db}.subscriptions s join ${db}.lists l on l.id = s.list_id`,
      {
        person_id: ['s.person_id', 'the person'],
        list: ['l.name', 'the list'],
        state: ['s.state', 'pending, subscribed or unsubscribed'],
        since: [time('s.since'), 'since when'],
      },
    ),
    view('suppressed', 'Who is never mailed', (db) => `${db}.set_aside a`, {
      person_id: ['a.person_id', 'the person'],
      at: [time('a.at'), 'when'],
      reason: ['a.reason', 'bounced, complained or by-hand'],
    }),
    view(
      'set_aside',
      'The same as suppressed, as it was called earlier',
      (db) => `${db}.set_aside a`,
      {
        person_id: ['a.person_id', 'the person'],
        at: [time('a.at'), 'when'],
        reason: ['a.reason', 'bounced, complained or by-hand'],
      },
    ),
    view('own_limits', 'What readers asked for by themselves', (db) => `${db}.own_limits o`, {
      person_id: ['o.person_id', 'the person'],
      paused_until: [time('o.paused_until'), 'no mailings before'],
      one_in_days: ['o.one_in_days', 'at most one mailing in so many days'],
    }),
    view(
      'mailings',
      'Every mailing with its totals',
      (db) =>
        `${db}.mailings m join ${db}.letters w on w.id = m.letter_id left join ${db}.lists l on l.id = m.list_id left join ${db}.mailing_totals t on t.mailing_id = m.id`,
      {
        id: ['m.id', 'number of the mailing'],
        name: ['m.name', 'its name'],
        subject: ['w.subject', 'the subject'],
        list: ['l.name', 'the list'],
        state: ['m.state', 'draft, scheduled, sending, sent or held'],
        started: [time('m.started_at'), 'when it began'],
        delivered: [`coalesce(${totalWords('delivered')}, 0)`, 'delivered'],
        opened: ['coalesce(t.opened, 0)', 'people who opened it'],
        clicked: ['coalesce(t.clicked, 0)', 'people who clicked'],
        unsubscribed: ['coalesce(t.left_list, 0)', 'people who unsubscribed by it'],
        left_list: ['coalesce(t.left_list, 0)', 'the same as unsubscribed'],
        bounced: [`coalesce(${totalWords('bounced')}, 0)`, 'bounced or refused'],
        complained: ['coalesce(t.complained, 0)', 'complained'],
      },
    ),
    view('recipients', 'Who got which mailing, and what came of it', (db) => `${db}.recipients r`, {
      mailing_id: ['r.mailing_id', 'the mailing'],
      person_id: ['r.person_id', 'the person'],
      round: ['r.round', 'which of their rounds in its sequence; 0: the first, or of no sequence'],
      state: ['r.state', 'queued, accepted, bounced …'],
      accepted: [time('r.accepted_at'), 'when their provider took it'],
      opened: [time('r.opened_at'), 'first opened'],
      clicked: [time('r.clicked_at'), 'first clicked'],
      unsubscribed: [time('r.left_at'), 'unsubscribed by it'],
      left: [time('r.left_at'), 'the same as unsubscribed'],
      replied: [time('r.replied_at'), 'first wrote back'],
      failure: ['r.failure', 'why it did not arrive: no such address, mailbox full …'],
    }),
    acts('opens', 'Every open by a person', 'open', {}),
    acts('clicks', 'Every click by a person', 'click', { link: ['a.link', 'number of the link'] }),
    view('orders', 'Orders', (db) => `${db}.orders o`, {
      id: ['o.id', 'number here'],
      number: ['o.number', 'the shop’s number'],
      person_id: ['o.person_id', 'who ordered'],
      at: [time('o.at'), 'when'],
      money_minor: ['o.money', 'in minor units (9400 is 94.00)'],
    }),
    view(
      'order_items',
      'What was ordered',
      (db) => `${db}.order_items i join ${db}.products d on d.id = i.product_id`,
      {
        order_id: ['i.order_id', 'the order'],
        product: ['d.name', 'the product'],
        category: ['d.category', 'its category'],
        quantity: ['i.quantity', 'how many'],
        money_minor: ['i.money', 'in minor units'],
      },
    ),
    view('events', 'What people did elsewhere', (db) => `${db}.events e`, {
      person_id: ['e.person_id', 'who'],
      name: ['e.name', 'what'],
      at: [time('e.at'), 'when'],
      properties: ['e.props', 'more about it, as JSON'],
    }),
  ]
}

/** The statement that makes a view as a temporary one over the tables in schema `db`. */
export function createView({ name, made, from }: Definition, db: string): string {
  const columns = Object.entries(made).map(([column, as]) => `${as} as "${column}"`)
  return `create temp view "${name}" as select ${columns.join(', ')} from ${from(db)}`
}

/** Names of columns that a field of the account can't take. */
const taken = new Set([
  'id',
  'address',
  'domain',
  'joined',
  'sent_mailings',
  'opened_mailings',
  'clicked_mailings',
  'last_opened',
  'order_count',
  'spent_minor',
])

type Columns = Record<string, [made: string, about: string]>

function view(
  name: string,
  about: string,
  from: (db: string) => string,
  columns: Columns,
): Definition {
  const pick = (i: 0 | 1) =>
    Object.fromEntries(Object.entries(columns).map(([column, parts]) => [column, parts[i]]))
  return { name, about, from, made: pick(0), columns: pick(1) }
}

function acts(name: string, about: string, kind: 'open' | 'click', more: Columns): Definition {
  return view(
    name,
    about,
    (db) => `${db}.acts a where a.kind = '${kind}' and a.verdict = 'human'`,
    {
      mailing_id: ['a.mailing_id', 'the mailing'],
      person_id: ['a.person_id', 'the person'],
      ...more,
      at: [time('a.at'), 'when'],
    },
  )
}
