/** The tables of what is counted of a mailing as it comes. Kept by triggers on recipients and acts, so that no page has to count. */
export interface ResultTables {
  mailing_providers: { mailing_id: number; domain: string } & Record<
    | 'recipients'
    | 'delivered'
    | 'opened'
    | 'clicked'
    | 'left_list'
    | 'bounced'
    | 'complained'
    | 'deferred',
    number
  >
  mailing_link_totals: { mailing_id: number; no: number; people: number; clicks: number }
  mailing_hours: { mailing_id: number; hour: number; opens: number; clicks: number }
}

/** The triggers that keep these tables, by name; the migrations have their text. */
export const resultTriggers = {
  providers_planned: 'mailing_providers: recipients',
  providers_gone: 'mailing_providers: a recipient is deleted',
  providers_changed: 'mailing_providers: a recipient’s state, opens, clicks, leaving',
  providers_handed_on: 'mailing_providers: a recipient becomes another person',
  providers_moved: 'mailing_providers: a person’s domain changes',
  link_followed: 'mailing_link_totals: a click is judged human',
  link_followed_and_judged: 'mailing_link_totals: a click that comes judged',
} as const
