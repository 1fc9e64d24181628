import { escapeHtml } from '../letters/parts'
import type { Field, FieldValue } from '../people/fields'
import type { SubscriptionState } from '../people/subscription'
import { pauseWeeks, type OwnLimits } from './limits'
import type { Told } from './told'

/** What a reader sees and changes on their own page. */
export interface ReaderPage {
  sender: string
  address: string
  suppressed: boolean
  lists: ReaderList[]
  /** As far as they hold now. */
  limits: OwnLimits
  /** Their own fields, as far as the account opened them, with what they are. */
  fields: { field: Field; value: FieldValue | null }[]
}

export interface ReaderList {
  id: number
  name: string
  about: string
  often: string
  state: SubscriptionState | null
  since: number | null
}

/** What is told at the head of the page: that something was saved, or what is wrong with what was written. */
export interface Notice {
  kind: 'said' | 'fault'
  words: string
}

/** The page as HTML, without what stands around every public page. Every form posts to where the page is; `typed`: what was written and not taken. */
export function readerPageHtml(
  page: ReaderPage,
  told: Told,
  notice: Notice | null = null,
  typed: Readonly<Record<string, string>> = {},
): string {
  const { sender, address } = page
  return [
    notice ? noticeHtml(notice) : '',
    `<p>${told.html('pageAbout', { sender, address })}</p>`,
    page.suppressed ? `<p class="fault">${told.html('suppressed')}</p>` : '',
    section(told.html('lists'), lists(page.lists, told)),
    section(told.html('fewer'), fewer(page.limits, told)),
    page.fields.length ? section(told.html('details'), details(page.fields, told, typed)) : '',
    section(
      told.html('newAddress'),
      form(
        'address',
        `<p>${told.html('newAddressAbout')}</p>${labelled(
          told.html('newAddressLabel'),
          `<input name="address" type="email" autocomplete="email" required maxlength="254" value="${escapeHtml(typed.address ?? '')}">`,
        )}`,
        told.html('sendThere'),
      ),
    ),
    section(
      told.html('known'),
      form('known', `<p>${told.html('knownAbout', { address })}</p>`, told.html('sendLink')),
    ),
    section(
      told.html('everything'),
      form(
        'leave',
        `<p>${told.html('everythingAbout')}</p>`,
        told.html('unsubscribeAll'),
        page.lists.some(({ state }) => state === 'subscribed' || state === 'pending'),
      ),
    ),
    section(
      told.html('erase'),
      form('erase', `<p>${told.html('eraseAbout', { address })}</p>`, told.html('sendLink')),
    ),
  ].join('\n')
}

const noticeHtml = ({ kind, words }: Notice) =>
  `<p class="${kind}" role="${kind === 'said' ? 'status' : 'alert'}">${escapeHtml(words)}</p>`

const section = (title: string, body: string) => `<section><h2>${title}</h2>${body}</section>`

/** A form that does one thing; without a reason to press it, its button is not there. Those that save stand out. */
const form = (act: string, body: string, button: string, offered = true) => {
  const quiet = act === 'lists' || act === 'fields' ? '' : ' class="quiet"'
  return `<form method="post"><input type="hidden" name="do" value="${act}">${body}${offered ? `<button${quiet}>${button}</button>` : ''}</form>`
}

const labelled = (label: string, input: string, hint = '') =>
  `<label class="field"><span>${label}${hint && ` <small>${hint}</small>`}</span>${input}</label>`

function lists(lists: readonly ReaderList[], told: Told): string {
  if (!lists.length) return `<p>${told.html('noLists')}</p>`
  const rows = lists.map(({ id, name, about, often, state, since }) => {
    const on = state === 'subscribed' || state === 'pending'
    const standing =
      on && since !== null
        ? told.html('subscribedSince', { date: told.day(since) })
        : told.html('notSubscribed')
    const small = [escapeHtml(often), standing].filter(Boolean).join(' · ')
    // What was shown goes along: only what the reader changed of that is changed.
    return `<label class="list"><input type="checkbox" name="on" value="${id}"${on ? ' checked' : ''}><span><b>${escapeHtml(name)}</b>${about && `<span>${escapeHtml(about)}</span>`}<small>${small}</small></span></label><input type="hidden" name="${on ? 'was' : 'not'}" value="${id}">`
  })
  return form('lists', rows.join(''), told.html('saveLists'))
}

function fewer({ pausedUntil, oneInDays }: OwnLimits, told: Told): string {
  const pause =
    pausedUntil === null
      ? `<form method="post" class="row"><input type="hidden" name="do" value="pause">${pauseWeeks
          .map(
            (weeks) =>
              `<button name="weeks" value="${weeks}" class="quiet">${told.html('pauseFor', { weeks: String(weeks) })}</button>`,
          )
          .join('')}</form><p class="small">${told.html('pauseAbout')}</p>`
      : `<p><b>${told.html('pausedUntil', { date: told.day(pausedUntil) })}</b></p>${quiet('unpause', told.html('endPause'))}`
  const limit =
    oneInDays === null
      ? quiet('weekly', told.html('weekly'))
      : `<p><b>${told.html('weeklyNow')}</b></p>${quiet('unlimited', told.html('noLimit'))}`
  return pause + limit
}

const quiet = (act: string, words: string) =>
  `<form method="post"><button name="do" value="${act}" class="quiet">${words}</button></form>`

function details(
  fields: ReaderPage['fields'],
  told: Told,
  typed: Readonly<Record<string, string>>,
): string {
  const rows = fields.map(({ field, value }) => {
    const name = `value.${field.key}`
    const written = typed[name] ?? valueAsTyped(value)
    return labelled(
      escapeHtml(readerFieldName(field, told)),
      fieldInput(field, name, written, told),
      field.kind === 'choices' ? told.html('severalApart') : '',
    )
  })
  return form('fields', rows.join(''), told.html('saveDetails'))
}

/** What a field is called before readers; the names of people have words of their own in each language. */
export function readerFieldName({ key, name }: Field, told: Told): string {
  if (key === 'first_name') return told.plain('firstName')
  return key === 'last_name' ? told.plain('lastName') : name
}

function fieldInput({ kind }: Field, name: string, written: string, told: Told): string {
  const value = escapeHtml(written)
  switch (kind) {
    case 'yesno':
      return `<select name="${name}">${(
        [
          ['', 'notSaid'],
          ['yes', 'yes'],
          ['no', 'no'],
        ] as const
      )
        .map(
          ([is, words]) =>
            `<option value="${is}"${is === written ? ' selected' : ''}>${told.html(words)}</option>`,
        )
        .join('')}</select>`
    case 'date':
      return `<input type="date" name="${name}" value="${value}">`
    case 'number':
      return `<input type="number" step="any" name="${name}" value="${value}">`
    case 'link':
      return `<input type="url" name="${name}" value="${value}" maxlength="2000">`
    case 'text':
    case 'choice':
    case 'choices':
      return `<input name="${name}" value="${value}" maxlength="2000">`
  }
}

/** A value as it is written in a form, and read back by {@link typedValue}. */
export function valueAsTyped(value: FieldValue | null): string {
  if (value === null) return ''
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  return Array.isArray(value) ? value.join(', ') : String(value)
}

/** What was written in a field's form, for its kind; null: nothing. It is still to be checked. */
export function typedValue({ kind }: Pick<Field, 'kind'>, written: string): unknown {
  const text = written.trim()
  if (text === '') return null
  switch (kind) {
    case 'number':
      return Number(text.replace(',', '.'))
    case 'yesno':
      return text === 'yes' ? true : text === 'no' ? false : text
    case 'choices':
      return text.split(',')
    default:
      return text
  }
}

/** Which lists the reader wants and which no longer, of those they were shown, from the page's form. */
export function changedLists(form: URLSearchParams): { join: number[]; leave: number[] } {
  const ids = (name: string) => new Set(form.getAll(name).map(Number))
  const [on, was, not] = [ids('on'), ids('was'), ids('not')]
  return {
    join: [...not].filter((id) => on.has(id)),
    leave: [...was].filter((id) => !on.has(id)),
  }
}
