import { escapeHtml } from '../letters/parts'
import type { Field } from '../people/fields'
import { directionOf, type ReaderLanguage } from '../readers/words'
import type { Told } from '../readers/told'
import { nameOf, type FormFault, type Posted } from './entered'
import { firstLanguage, type FieldPart, type FormPart, type Said, type SignUpForm } from './form'
import type { DrawnLook } from './look'
import { wordsFor, type Words } from './words'

/** A form as it is drawn for somebody. */
export interface Drawing {
  form: SignUpForm
  language: ReaderLanguage
  told: Told
  look: DrawnLook
  fields: ReadonlyMap<string, Field>
  sender: { name: string; postalAddress: string }
  /** How high a picture is for its width, by its source, so that its room is there before it is; of others nothing is known. */
  shapes?: Readonly<Record<string, number>>
  /** Where it posts, and what says when and for which version it was drawn. */
  action: string
  token: string
  version: number
  /** The page it stands on, where that is known; it comes back with what is entered. */
  page?: string | null
  /** What was posted and not taken, what is wrong with it, and the address that may have been meant. */
  typed?: Posted
  faults?: Readonly<Record<string, FormFault>>
  meant?: string | null
  /** Why it is to be sent once more: it had been open for too long; or it came from a form that we did not draw. */
  again?: 'stale' | 'plain' | undefined
  /** It was filled in on a page of which nobody knows that it may have it; that stays so, however often it is sent. */
  fromElsewhere?: boolean
}

/** The name of the field that nobody sees, and only programs fill in; none that a browser would fill in for somebody. */
export const TRAP = 'leave_empty'

/** The form as HTML that works without a script. */
export function formHtml(drawing: Drawing): string {
  const { form, look, told, action, token, version, language, sender } = drawing
  const said = saidAbove(drawing)
  const logo = look.logo
    ? `<img class="sup-logo" src="${escapeHtml(look.logo)}" alt="${escapeHtml(sender.name)}"${sized(look.logo, look.logoWidth, drawing.shapes)}>`
    : ''
  const hidden = (name: string, value: string) =>
    `<input type="hidden" name="${escapeHtml(name)}" value="${escapeHtml(value)}">`
  const parts = form.parts.map((part) => partHtml(part, drawing)).join('\n')
  return `<form class="sup" method="post" action="${escapeHtml(action)}" lang="${language}" dir="${directionOf(language)}" novalidate>${logo}
<div class="sup-parts${form.columns === 2 ? ' two' : ''}">${said ? `<p class="sup-top" role="alert">${told.html(said)}</p>` : ''}
${parts}
</div>${hidden('token', token)}${hidden('version', String(version))}${hidden('language', language)}${drawing.page ? hidden('page', drawing.page) : ''}${drawing.fromElsewhere ? hidden('elsewhere', 'yes') : ''}
<div class="sup-trap" aria-hidden="true"><label>Leave this empty <input name="${TRAP}" tabindex="-1" autocomplete="off"></label></div></form>`
}

/** What stands above a form that is drawn again. */
function saidAbove({ again, faults = {} }: Drawing) {
  if (Object.keys(faults).length > 0) return 'formLook'
  return again ? ({ stale: 'formStale', plain: 'formPlain' } as const)[again] : null
}

/**
 * The form to be pasted into a page as it is, without a script and in that page's own style. It has no token, so what it
 * sends is shown once more on a page of ours before it is taken.
 */
export function plainFormHtml(drawing: Drawing): string {
  const { form, action, version, language } = drawing
  const parts = form.parts.map((part) => partHtml(part, drawing)).join('\n')
  const hidden = (name: string, value: string) =>
    `<input type="hidden" name="${name}" value="${escapeHtml(value)}">`
  const html = `<form method="post" action="${escapeHtml(action)}" accept-charset="utf-8" lang="${language}">
${parts}
${hidden('version', String(version))}${hidden('language', language)}
</form>`
  return html.replace(/ class="[^"]*"/g, '')
}

/** What is seen instead of the form: thanks, or that it is confirmed. `goOn`: with a link to where one would be led. */
export function saidHtml(
  said: Said,
  drawing: Pick<Drawing, 'form' | 'language' | 'told'>,
  goOn = false,
): string {
  const text = (words: Words) =>
    escapeHtml(wordsFor(words, drawing.language, firstLanguage(drawing.form)))
  const link =
    goOn && said.url
      ? `<p><a href="${escapeHtml(said.url)}" target="_top" rel="noopener">${drawing.told.html('formGoOn')}</a></p>`
      : ''
  return `<div class="sup" lang="${drawing.language}" dir="${directionOf(drawing.language)}"><div class="sup-parts"><h2 tabindex="-1">${text(said.title)}</h2><p>${text(said.text)}</p>${link}</div></div>`
}

/** A picture is shown as wide as the form; this is what its height is reckoned by. */
const PICTURE = 600

const sized = (src: string, width: number, shapes: Drawing['shapes'] = {}) => {
  const shape = shapes[src]
  return ` width="${width}"${shape ? ` height="${Math.round(width * shape)}"` : ''}`
}

function partHtml(part: FormPart, drawing: Drawing): string {
  const { form, language, told, typed = {}, faults = {}, sender } = drawing
  const words = (of: Words) => escapeHtml(wordsFor(of, language, firstLanguage(form)))
  switch (part.kind) {
    case 'heading':
      return `<h2>${words(part.text)}</h2>`
    case 'text':
      return `<p>${words(part.text)}</p>`
    case 'picture':
      return part.src
        ? `<img class="sup-picture" src="${escapeHtml(part.src)}" alt="${words(part.alt)}"${sized(part.src, PICTURE, drawing.shapes)}>`
        : ''
    case 'field':
      return fieldHtml(part, drawing)
    case 'consent': {
      const name = nameOf.tick(part)
      // What was ticked stays so where something else was wrong; nothing is ticked beforehand.
      const ticked = typed[name]?.length ? ' checked' : ''
      const fault = faults[part.id]
      return `<div><label class="sup-box"><input type="checkbox" name="${name}" value="yes"${ticked}${invalid(part, fault)}><span>${words(part.text)}</span></label>${wrongHtml(part, fault, told)}</div>`
    }
    case 'button':
      return `<button class="sup-send">${words(part.label)}</button>`
    case 'small': {
      const privacy = form.privacy
        ? ` · <a href="${escapeHtml(form.privacy)}" target="_blank" rel="noopener">${told.html('formPrivacy')}</a>`
        : ''
      const who = escapeHtml(senderLine(sender))
      return `<p class="sup-small">${[words(part.text), who].filter(Boolean).join('<br>')}${privacy}</p>`
    }
    case 'hidden': {
      const name = nameOf.hidden(part)
      return `<input type="hidden" name="${name}" value="${escapeHtml(typed[name]?.[0] ?? '')}">`
    }
  }
}

/** Who one deals with, on one line. A postal address that begins with the name says it once. */
export function senderLine({ name, postalAddress }: Drawing['sender']): string {
  const lines = postalAddress.split('\n').map((line) => line.trim())
  return [...(lines[0] === name ? [] : [name]), ...lines].filter(Boolean).join(', ')
}

const invalid = (part: { id: string }, fault: FormFault | undefined) =>
  fault ? ` aria-invalid="true" aria-describedby="w-${part.id}"` : ''

const faultWords = {
  empty: 'formEmpty',
  address: 'wrongAddress',
  value: 'formValue',
  tick: 'formTick',
  needed: 'formNeeded',
} as const satisfies Record<FormFault, string>

const wrongHtml = (part: { id: string }, fault: FormFault | undefined, told: Told) =>
  fault ? `<span class="sup-wrong" id="w-${part.id}">${told.html(faultWords[fault])}</span>` : ''

/** What a field is called where the form has no label of its own for it. */
export function fieldLabel(
  part: FieldPart,
  { form, language, told, fields }: Pick<Drawing, 'form' | 'language' | 'told' | 'fields'>,
): string {
  const own = wordsFor(part.label, language, firstLanguage(form))
  if (own) return own
  if (part.field === 'address') return told.plain('formAddress')
  if (part.field === 'first_name') return told.plain('firstName')
  if (part.field === 'last_name') return told.plain('lastName')
  return fields.get(part.field)?.name ?? part.field
}

function fieldHtml(part: FieldPart, drawing: Drawing): string {
  const { form, language, told, typed = {}, faults = {}, meant } = drawing
  const name = nameOf.field(part)
  const fault = faults[part.id]
  const written = typed[name] ?? []
  const words = (of: Words) => wordsFor(of, language, firstLanguage(form))
  const optional = part.required ? '' : ` <small>· ${told.html('formOptional')}</small>`
  const label = `${escapeHtml(fieldLabel(part, drawing))}${optional}`
  const help = words(part.help)
    ? `<span class="sup-help">${escapeHtml(words(part.help))}</span>`
    : ''
  const wrong = wrongHtml(part, fault, told)
  const half = form.columns === 2 && part.field !== 'address' ? ' half' : ''
  const kind = drawing.fields.get(part.field)?.kind ?? 'text'
  const several = kind === 'choices'
  if (part.choices.length > 0 && (several || (kind === 'choice' && part.as !== 'list'))) {
    const type = several ? 'checkbox' : 'radio'
    const rows = part.choices.map(
      (choice) =>
        `<label class="sup-choice"><input type="${type}" name="${name}" value="${escapeHtml(choice)}"${written.includes(choice) ? ' checked' : ''}><span>${escapeHtml(choice)}</span></label>`,
    )
    return `<fieldset class="sup-field${half}"${invalid(part, fault)}><legend class="sup-label">${label}</legend>${rows.join('')}${help}${wrong}</fieldset>`
  }
  const attributes = `class="sup-input" name="${name}"${part.required ? ' required' : ''}${invalid(part, fault)}`
  const value = escapeHtml(written[0] ?? '')
  const placeholder = words(part.placeholder)
    ? ` placeholder="${escapeHtml(words(part.placeholder))}"`
    : ''
  const options = (choices: readonly (readonly [string, string])[]) =>
    `<select ${attributes}><option value="">${told.html('formChoose')}</option>${choices
      .map(
        ([is, said]) =>
          `<option value="${escapeHtml(is)}"${is === written[0] ? ' selected' : ''}>${escapeHtml(said)}</option>`,
      )
      .join('')}</select>`
  const input = () => {
    if (part.field === 'address')
      return `<input ${attributes} type="email" autocomplete="email" inputmode="email" maxlength="254" value="${value}"${placeholder}>`
    if (kind === 'choice' && part.choices.length > 0)
      return options(part.choices.map((choice) => [choice, choice] as const))
    if (kind === 'yesno')
      return options([
        ['yes', told.plain('yes')],
        ['no', told.plain('no')],
      ])
    const type = { date: 'date', number: 'number', link: 'url' }[kind as string] ?? 'text'
    const fill = { first_name: 'given-name', last_name: 'family-name' }[part.field]
    const more = `${type === 'number' ? ' step="any"' : ''}${fill ? ` autocomplete="${fill}"` : ''}`
    return `<input ${attributes} type="${type}" maxlength="1000" value="${value}"${placeholder}${more}>`
  }
  const asked =
    part.field === 'address' && meant
      ? `<div class="sup-meant" role="alert"><span>${told.html('formMeant', { address: meant })}</span><button name="meant" value="${escapeHtml(meant)}">${told.html('formMeantYes')}</button><button name="sure" value="${value}">${told.html('formMeantNo')}</button></div>`
      : ''
  return `<div class="sup-field${half}"><label><span class="sup-label">${label}</span>${input()}${help}</label>${wrong}${asked}</div>`
}
