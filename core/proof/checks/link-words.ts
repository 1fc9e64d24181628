import { linksOf } from '../../letters'
import type { Mark, ProofFacts } from '../mark'

const saysNothing = /^(click here|here|click|this link|this|link|more)[.!]?$/i
const testHost =
  /^(localhost|127\.|10\.|192\.168\.|0\.0\.0\.0)|(^|\.)(staging|stage|dev|test|preview)\.|\.(local|localhost|test|invalid|internal)$/i

/** Link words that say nothing, addresses that lead elsewhere than they say, and hosts that readers can't reach. */
export function linkWords({ letter }: ProofFacts): Mark[] {
  return linksOf(letter.document).flatMap(({ url, words, blockId }): Mark[] => {
    const host = hostOf(url)
    const said = words.trim()
    const base = { check: 'link-words', blockId }
    if (host && testHost.test(host))
      return [
        {
          ...base,
          level: 'caution',
          title: 'Link leads to a test host',
          detail: `“${said}” leads to ${host}, which readers may not reach.`,
        },
      ]
    const shown = /^(https?:\/\/)?([a-z0-9-]+(\.[a-z0-9-]+)+)([/?#]|$)/i.exec(said)?.[2]
    if (host && shown && bare(shown) !== bare(host))
      return [
        {
          ...base,
          level: 'caution',
          title: 'A link leads elsewhere than it says',
          detail: `It reads ${shown} and leads to ${host}. Readers and filters take that for a trick.`,
          repairs: [
            {
              words: `Lead to ${shown}`,
              change: {
                is: 'link',
                from: url,
                to: said.includes('://') ? said : `https://${said}`,
              },
            },
          ],
        },
      ]
    if (saysNothing.test(said))
      return [
        {
          ...base,
          level: 'note',
          title: `“${said}” says nothing`,
          detail: 'Say where the link leads; many jump from link to link.',
        },
      ]
    return []
  })
}

function hostOf(url: string): string | null {
  return URL.canParse(url) && /^https?:/i.test(url) ? new URL(url).hostname : null
}

const bare = (host: string) => host.toLowerCase().replace(/^www\./, '')
