import type { H3Event } from 'h3'
import { contrast, defaultLetterhead, type Letterhead } from '~~/core/letters'
import { directionOf, readerLanguages, toldIn, type Told } from '~~/core/readers'
import { readAccount } from '~~/database/account'
import { toldTo } from '~~/cases/readers'

/** A page that readers see. */
export interface PublicPage {
  title: string
  /** HTML. */
  body: string
  /** ISO 639-1. */
  language: string
  status?: number
  /** A page with forms on it has room for them. */
  wide?: boolean
  /** Where its form may lead in the end, besides here (CSP3, 6.4.1: redirects count, too). */
  goesTo?: string
}

/** A public page: plain HTML that works without JavaScript, in the account's name and look. */
export function publicPage(event: H3Event, page: PublicPage): string {
  const { title, body, language, status = 200, wide = false, goesTo = '' } = page
  setResponseStatus(event, status)
  setResponseHeaders(event, {
    'Content-Type': 'text/html; charset=utf-8',
    'Content-Security-Policy': `default-src 'none'; style-src 'unsafe-inline'; img-src 'self'; form-action 'self'${goesTo ? ` ${new URL(goesTo).origin}` : ''}; base-uri 'none'; frame-ancestors 'none'`,
    'Referrer-Policy': 'no-referrer',
    'X-Content-Type-Options': 'nosniff',
    'Cache-Control': 'no-store',
  })
  const account = readAccount(satchel().db)
  const look = account?.letterhead ?? defaultLetterhead
  const logo = look.logo && account ? logoOf(look, account.name) : ''
  return `<!doctype html><html lang="${language}" dir="${directionOf(language)}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><meta name="robots" content="noindex"><title>${escapeText(title)}</title><style>${styleOf(look, wide)}</style></head><body><main>${logo}<h1>${escapeText(title)}</h1>${body}</main></body></html>`
}

const logoOf = ({ logo, logoWidth }: Letterhead, name: string) =>
  `<img class="logo" src="${logo}" alt="${escapeText(name)}" style="width:${Math.min(logoWidth, 240)}px">`

/** What is on a colour can be read (WCAG 2.2, 1.4.3). */
const READABLE = 4.5

function styleOf(look: Letterhead, wide: boolean): string {
  const { ground, paper, ink, accent, headingFont, textFont, corner } = look
  const onAccent = contrast('#ffffff', accent) >= READABLE ? '#ffffff' : '#101010'
  const link = contrast(accent, paper) >= READABLE ? accent : ink
  const text = contrast(ink, paper) >= READABLE ? ink : '#101010'
  return `:root{color-scheme:light}*{box-sizing:border-box}
body{margin:0;padding:24px 12px 48px;background:${ground};color:${text};font:16px/1.55 ${textFont}}
main{max-width:${wide ? 36 : 30}rem;margin:${wide ? '2vh' : '10vh'} auto 0;padding:28px 32px;background:${paper};border-radius:${Math.min(corner, 12)}px;overflow-wrap:anywhere}
.logo{display:block;max-width:100%;margin:0 0 20px}
h1{font:700 1.5rem/1.25 ${headingFont};margin:0 0 .6em}h2{font:700 1.1rem/1.3 ${headingFont};margin:0 0 .6em}
p{margin:0 0 1em}a{color:${link}}.small,small{font-size:.875rem}.small,small{opacity:.85}
section{margin:28px 0 0;padding:24px 0 0;border-top:1px solid color-mix(in srgb,${text} 18%,transparent)}
button{font:inherit;font-weight:600;min-height:44px;padding:8px 18px;border-radius:${Math.min(corner, 22)}px;border:1px solid ${accent};background:${accent};color:${onAccent};cursor:pointer}
button.quiet{background:transparent;color:${text};border-color:color-mix(in srgb,${text} 55%,transparent)}
form{margin:0 0 12px}form+form{margin-top:12px}.row{display:grid;grid-template-columns:repeat(3,1fr);gap:8px}.row button{padding:8px}
button:focus-visible,input:focus-visible,select:focus-visible,a:focus-visible{outline:3px solid ${link};outline-offset:2px}
.line{display:block;padding:6px 0}fieldset{border:0;padding:0;margin:1em 0}legend{padding:0;font-weight:700}
.list{display:flex;gap:12px;padding:10px 0;cursor:pointer}.list input{width:22px;height:22px;margin:2px 0 0;flex:none;accent-color:${link}}.list span{display:block}.list small{display:block}
.list+input+.list{border-top:1px solid color-mix(in srgb,${text} 10%,transparent)}.list~button{margin-top:12px}
.field{display:block;margin:0 0 14px}.field>span{display:block;margin:0 0 4px}
input:not([type=checkbox]):not([type=radio]),select{font:inherit;width:100%;min-height:44px;padding:8px 12px;color:${text};background:#fff;border:1px solid #767676;border-radius:${Math.min(corner, 8)}px}
.said,.fault{padding:12px 16px;border-inline-start:4px solid ${link};background:color-mix(in srgb,${text} 6%,${paper})}.fault{border-color:#b3261e}
dl{margin:0}dt{font-weight:700}dd{margin:0 0 .8em}
@media(max-width:480px){main{padding:24px 20px}.row{grid-template-columns:1fr}}`
}

export function escapeText(text: string): string {
  return text
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;')
}

/** What a wrong or forged link gets. */
export function noSuchLink(event: H3Event): string {
  return deadPage(event, toldToAll(), 'deadLink', 'deadLinkAbout')
}

/** A page that says what is the matter with a link, and nothing else. */
export function deadPage(
  event: H3Event,
  told: Told,
  title: 'deadLink' | 'linkOver',
  about: 'deadLinkAbout' | 'linkOverAbout',
): string {
  return publicPage(event, {
    title: told.plain(title),
    body: `<p>${told.html(about)}</p>`,
    language: told.language,
    status: 404,
  })
}

/** How nobody in particular is spoken to; before there is an account, in English. */
function toldToAll(): Told {
  const { db } = satchel()
  return readAccount(db) ? toldTo(db, null, null) : toldIn(readerLanguages.en, 'en', 'UTC')
}
