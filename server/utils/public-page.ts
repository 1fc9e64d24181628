import type { H3Event } from 'h3'

/** A public page: plain HTML that works without JavaScript, in the account's name. */
export function publicPage(event: H3Event, title: string, body: string, status = 200): string {
  setResponseStatus(event, status)
  setResponseHeaders(event, {
    'Content-Type': 'text/html; charset=utf-8',
    'Content-Security-Policy':
      "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'",
    'Referrer-Policy': 'no-referrer',
    'X-Content-Type-Options': 'nosniff',
    'Cache-Control': 'no-store',
  })
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><meta name="robots" content="noindex"><title>${escapeText(title)}</title><style>
body{margin:0;background:#f6f7f3;color:#1a1e18;font:16px/1.55 system-ui,sans-serif}
main{max-width:30rem;margin:12vh auto 0;padding:28px 32px;background:#fff;border:1px solid #dfe3d9;border-radius:6px}
h1{font-size:1.4rem;line-height:1.25;margin:0 0 .6em}button{font:inherit;font-weight:600;min-height:40px;padding:0 18px;border-radius:6px;border:1px solid #4b5a28;background:#4b5a28;color:#fff;cursor:pointer}
.line{display:block;padding:4px 0}fieldset{border:0;padding:0;margin:1em 0}legend{padding:0;font-weight:600}input{font:inherit}form+form{margin-top:1em}button.quiet{background:#fff;color:#1a1e18;border-color:#a7aea3}button:focus-visible{outline:3px solid #c08a1e;outline-offset:2px}.small{color:#5b6459;font-size:.9rem}
</style></head><body><main><h1>${escapeText(title)}</h1>${body}</main></body></html>`
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
  return publicPage(
    event,
    'This link leads nowhere',
    '<p>It is incomplete, or it was not made by us. Nothing has changed.</p>',
    404,
  )
}
