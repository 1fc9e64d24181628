import type { H3Event } from 'h3'
import { contrast } from '~~/core/letters'
import {
  firstLanguage,
  formStyle,
  partsOf,
  wordsFor,
  type Drawing,
  type SignUpForm,
} from '~~/core/sign-ups'
import { directionOf, languageNames, type ReaderLanguage } from '~~/core/readers'
import { toldTo } from '~~/cases/readers'

/** Where a form is drawn: on a page of its own, or within a frame on one of its sites. */
export type Stands = 'alone' | 'framed' | 'desk'

export const standsOf = (event: H3Event): Stands =>
  getQuery(event).in === 'page' ? 'framed' : 'alone'

/** A form, or what is said instead of it, as a page: by itself, or as it stands in a frame. */
export function signUpPage(
  event: H3Event,
  drawing: Pick<Drawing, 'form' | 'language' | 'look'>,
  body: string,
  { stands, status = 200, desk = '' }: { stands: Stands; status?: number; desk?: string },
): string {
  const { form, language, look } = drawing
  setResponseStatus(event, status)
  setResponseHeaders(event, {
    'Content-Type': 'text/html; charset=utf-8',
    'Content-Security-Policy': policyOf(form, stands),
    'Referrer-Policy': 'same-origin',
    'Cache-Control': 'no-store',
  })
  const { ground } = account().letterhead
  const title = titleOf(form, language)
  const page =
    stands === 'framed'
      ? 'body{margin:0;background:transparent}'
      : `${stands === 'desk' ? DESK_STYLE : ''}body{margin:0;padding:max(24px,7vh) 14px 48px;background:${ground}}main{max-width:460px;margin:0 auto;box-shadow:0 1px 2px #0000001f,0 12px 32px #0000000f;border-radius:${Math.min(look.corner, 16)}px}nav{max-width:460px;margin:16px auto 0;text-align:center;font:14px ${look.textFont}}nav a{display:inline-block;padding:6px 8px;color:${contrast(look.ink, ground) >= 4.5 ? look.ink : '#101010'}}`
  return `<!doctype html><html lang="${language}" dir="${directionOf(language)}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>${escapeText(title)}</title>${shared(form, language, title)}<style>${page}${formStyle(look)}</style></head><body><main>${body}</main>${stands === 'alone' ? byHand(form, language) : ''}${desk || '<script src="/s/seen.js" async></script>'}</body></html>`
}

/** On a tablet it can be read from a step away. */
const DESK_STYLE =
  'main{zoom:1.25}#desk-state{text-align:center;margin:18px 0 0;font:15px sans-serif}'

/** The form's other languages, to be chosen by hand. */
function byHand({ languages }: SignUpForm, language: ReaderLanguage): string {
  const others = languages.filter((one) => one !== language)
  return others.length === 0
    ? ''
    : `<nav>${others.map((one) => `<a href="?lang=${one}" hreflang="${one}" lang="${one}">${languageNames[one]}</a>`).join(' ')}</nav>`
}

/** In a frame it stands on the sites that are named for it, and nowhere else. */
function policyOf(form: SignUpForm, stands: Stands): string {
  const { kind, sites } = form
  const framed = stands === 'framed' && kind !== 'hosted' && sites.length > 0
  return [
    "default-src 'none'",
    "style-src 'unsafe-inline'",
    "img-src 'self'",
    "script-src 'self'",
    "connect-src 'self'",
    `form-action ${["'self'", ...leadsTo(form)].join(' ')}`,
    "base-uri 'none'",
    `frame-ancestors ${framed ? sites.join(' ') : "'none'"}`,
  ].join('; ')
}

/** Where a form may lead once it is sent in, besides here; what it redirects to counts, too (CSP3, 6.4.1). */
const leadsTo = ({ thanks, confirmed }: SignUpForm) =>
  [thanks.url, confirmed.url].filter(Boolean).map((url) => new URL(url).origin)

/** What the page is called: its first heading, or else the sender. */
function titleOf(form: SignUpForm, language: ReaderLanguage): string {
  const [heading] = partsOf(form, 'heading')
  return (heading && wordsFor(heading.text, language, firstLanguage(form))) || account().name
}

/** How it looks where its address is shared (Open Graph protocol). */
function shared(form: SignUpForm, language: ReaderLanguage, title: string): string {
  const [text] = partsOf(form, 'text')
  const about = text ? wordsFor(text.text, language, firstLanguage(form)) : ''
  const [picture] = partsOf(form, 'picture')
  const meta = (name: string, content: string) =>
    content ? `<meta property="og:${name}" content="${escapeText(content)}">` : ''
  return `${about ? `<meta name="description" content="${escapeText(about)}">` : ''}${meta('title', title)}${meta('description', about)}${meta('image', picture?.src ? `${satchel().url}${picture.src}` : '')}`
}

/** What is said where nobody can sign up: the form is paused, ended, or was never published. */
export function closedForm(event: H3Event): string {
  const { db } = satchel()
  const told = toldTo(db, null, null)
  return publicPage(event, {
    title: told.plain('formClosed'),
    body: `<p>${told.html('formClosedAbout', { sender: account().name })}</p>`,
    language: told.language,
    status: 404,
  })
}
