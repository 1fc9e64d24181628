import { simpleParser } from 'mailparser'
import sanitizeHtml from 'sanitize-html'
import type { Mail, Mailboxes } from '../post-office/mailboxes'

/** The mail that came, as a plain page: the latest of everybody, or one mailbox. */
export function mailListPage(mailboxes: Mailboxes, address: string | null): string {
  const rows = mailboxes
    .latest(100, address ?? undefined)
    .map(
      (mail) =>
        `<tr><td>${when(mail.at)}</td><td><a href="/mail?address=${encodeURIComponent(mail.address)}">${safe(mail.address)}</a></td><td>${mail.source === null ? safe(mail.subject) : `<a href="/mail/${mail.no}">${safe(mail.subject)}</a>`}</td></tr>`,
    )
  const what = address ? `Mailbox of ${safe(address)}` : 'Practice post office'
  const body = rows.length
    ? `<table><tr><th>Came</th><th>To</th><th>Subject</th></tr>${rows.join('')}</table>`
    : '<p>No mail has come yet.</p>'
  return page(
    what,
    `<p>${mailboxes.count.toLocaleString('en-GB')} messages have come so far.</p>${body}`,
  )
}

/** One message as its reader sees it, without anything that could run. */
export async function mailPage(mail: Mail): Promise<string> {
  if (mail.source === null)
    return page('Message', '<p>This message is too old; only that it came is known.</p>')
  const parsed = await simpleParser(Buffer.from(mail.source, 'latin1'))
  const html = sanitizeHtml(parsed.html || '', {
    allowedTags: [...sanitizeHtml.defaults.allowedTags, 'img', 'style', 'center', 'h1', 'h2'],
    allowedAttributes: false,
    allowVulnerableTags: true,
  })
  return page(
    parsed.subject ?? 'No subject',
    `<p>From ${safe(parsed.from?.text ?? '')} to ${safe(mail.address)}, ${when(mail.at)}</p>
<iframe sandbox title="The message" srcdoc="${safe(html)}" style="width:100%;height:70vh;border:1px solid #dfe3d9;background:#fff"></iframe>
<h2>Source</h2><pre>${safe(mail.source.slice(0, 60_000))}</pre>`,
  )
}

export function page(title: string, body: string): string {
  return `<!doctype html><html lang="en"><meta charset="utf-8"><title>${safe(title)}</title>
<style>body{font:14px/1.5 system-ui,sans-serif;margin:24px;color:#1a1e18;background:#f6f7f3}table{border-collapse:collapse;background:#fff}td,th{border:1px solid #dfe3d9;padding:5px 12px;text-align:left}pre{background:#fff;border:1px solid #dfe3d9;padding:12px;overflow:auto}</style>
<h1>${safe(title)}</h1><p><a href="/mail">All mail</a> · <a href="/providers">Providers and their habits</a></p>${body}</html>`
}

function when(at: number): string {
  return new Date(at).toISOString().slice(0, 16).replace('T', ' ')
}

export function safe(text: string): string {
  return text
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;')
}
