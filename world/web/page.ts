import { formOn, type SiteForms } from './site-forms'

/** How a page begins. */
const about: Record<string, string> = {
  '/': 'Sewn at four benches above the harbour, flown on the beach below them before they leave.',
  '/forecast':
    'West by north-west, four to five, easing towards the weekend. Sunday is for light hands.',
  '/gale-season': 'What flies in force six, and the lines that hold it.',
  '/delta-7': 'Seven feet of ripstop over carbon: steady where others dance.',
  '/line-care': 'Rinse, hang, look: five minutes after each day out double the years of a line.',
  '/workshop': 'Two days, four benches, all material. What you build, you take home.',
  '/repair-day': 'Bring it torn, take it mended: the first Saturday of each month.',
  '/festival': 'Sixty kites, two days, and the long sandbar to walk out on at low tide.',
  '/new-kites': 'Three that were drawn in winter and flown all spring.',
  '/spares': 'Spars, ferrules, bridle line, and the small things that get lost in sand.',
  '/beach-reports': 'Where it blew this week, and what was in the air.',
  '/beaches':
    'Long Nab likes it from the west, Tern Spit from anywhere, and Mill Beach forgives everything.',
}

/**
 * A page of the practice site, for people and for visitors alike: with the one line that its owner pasted, and a place for
 * the form that stands on it. `under`: the path under which the site is looked at here.
 */
export function sitePage(title: string, path: string, site: SiteForms | null, under = ''): string {
  const form = site && formOn(site, path)
  const place = form?.kind === 'in-page' ? `<div data-sign-up="${form.key}"></div>` : ''
  const foot = form?.pages.includes('*')
  const line = site ? `<script async src="${site.satchel}/s/forms.js"></script>` : ''
  const links = [
    ['/new-kites', 'Kites'],
    ['/workshop', 'Workshop'],
    ['/beach-reports', 'Beach reports'],
    ['/beaches', 'Twelve beaches'],
    ['/line-care', 'Line care'],
  ]
    .map(
      ([to, name]) =>
        `<a href="${under}${to}"${to === path ? ' aria-current="page"' : ''}>${name}</a>`,
    )
    .join('')
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>${title} · Galewright Kites</title><style>${style}</style>${line}</head><body><header><a class="home" href="${under}/">Galewright Kites</a><nav>${links}</nav></header><main><h1>${title}</h1><p class="lead">${about[path] ?? 'Made by hand in Sandreach, and mended there as long as it flies.'}</p>${foot ? '' : place}<p>A page of the practice world: a shop that is not there, with forms that are.</p></main><footer>${foot ? place : ''}<p>Galewright Kites, The Old Sail Loft, Sandreach</p></footer></body></html>`
}

const style =
  'body{margin:0;background:#f6f1e7;color:#20323c;font:17px/1.6 Georgia,serif}header{display:flex;flex-wrap:wrap;gap:12px 28px;align-items:baseline;padding:22px max(20px,calc(50vw - 380px));background:#20323c}header a{color:#f6f1e7;text-decoration:none}.home{font-size:21px}nav{display:flex;flex-wrap:wrap;gap:4px 18px;font-size:15px}nav a[aria-current]{text-decoration:underline;text-underline-offset:6px}main,footer{max-width:760px;margin:0 auto;padding:28px 20px}main{min-height:38vh}h1{font-size:34px;line-height:1.2;margin:12px 0}.lead{font-size:20px}[data-sign-up]{max-width:460px;margin:28px 0;box-shadow:0 1px 2px #0002}footer{border-top:1px solid #d9cfbd;font-size:15px}'
