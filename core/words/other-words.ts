/** Each line: what Satchel calls it, and what others do (or what Satchel called it earlier). Lower case. */
const groups: readonly (readonly string[])[] = [
  ['fill-in', 'merge field', 'personalisation', 'personalization', 'placeholder', 'variable'],
  ['stamp', 'reusable block', 'shared block', 'snippet'],
  ['suppressed', 'suppression list', 'blocklist', 'do not mail', 'set aside'],
  ['sequence', 'autoresponder', 'automation', 'workflow', 'flow'],
  ['rendition', 'versions'],
  ['read as', 'preview as', 'preview for a contact'],
  ['rendering', 'device preview', 'dark mode'],
  ['proof', 'check', 'checklist', 'pre-flight', 'spam check'],
  ['letter', 'email', 'e-mail', 'newsletter', 'message', 'campaign', 'compose'],
  ['mailing', 'mail', 'campaign', 'broadcast', 'blast', 'newsletter'],
  ['letterhead', 'brand', 'theme', 'styles', 'logo'],
  ['dispatch', 'schedule', 'send', 'delivery'],
  ['digest', 'rss to email', 'feed mail'],
  ['rehearsal', 'simulation', 'dry run', 'test run'],
  ['standing', 'reputation', 'deliverability', 'spam rate'],
  ['pulse', 'activity', 'engagement history'],
  ['round', 'enrolment', 'enrollment', 'entry'],
  ['archive', 'published letters', 'public page'],
  ['shown to', 'conditional content', 'visibility'],
  ['recommended products', 'product recommendations', 'picks', 'upsell', 'cross-sell'],
  ['social links', 'follow us', 'social icons', 'social media', 'elsewhere'],
  ['control group', 'holdout', 'held out'],
  ['a/b test', 'split test', 'multivariate', 'variants'],
  ['goal', 'conversion', 'revenue', 'worth'],
  ['export', 'download', 'data out', 'take out', 'backup', 'gdpr'],
  ['people', 'contacts', 'subscribers', 'audience', 'profiles', 'members'],
  ['tag', 'label', 'group'],
  ['field', 'custom field', 'attribute', 'property', 'merge field'],
  ['sign-up', 'form', 'pop-up', 'popup', 'landing page', 'opt-in', 'subscribe form'],
  ['unsubscribed', 'opted out', 'opt-out', 'left', 'churned', 'removed themselves'],
  ['bounced', 'came back', 'undeliverable', 'hard bounce', 'failed'],
  ['deferred', 'soft bounce', 'put off', 'throttled'],
  ['complained', 'spam complaint', 'marked as junk', 'abuse report'],
  ['segment', 'filter', 'dynamic list', 'audience', 'cohort'],
  ['engagement', 'activity score'],
  ['space', 'spacer', 'padding', 'gap'],
  ['divider', 'separator', 'horizontal rule', 'hr'],
  ['film', 'video', 'movie'],
  ['contents', 'table of contents', 'toc', 'index'],
  ['code', 'preformatted', 'monospace'],
  ['quote', 'testimonial', 'blockquote', 'review'],
  ['button', 'call to action', 'cta'],
  ['picture', 'image', 'photo', 'graphic', 'banner'],
  ['heading', 'title', 'headline', 'header'],
  ['text', 'paragraph', 'copy'],
  ['from a feed', 'rss', 'blog posts', 'articles'],
  ['product', 'item', 'shop'],
  ['footer', 'imprint', 'legal'],
  ['html', 'custom code', 'embed'],
  ['settings', 'preferences', 'account', 'profile', 'options', 'configuration'],
  ['team', 'users', 'members', 'permissions', 'roles', 'invite'],
  ['audit log', 'activity log', 'history of changes', 'security log'],
  ['keys', 'shortcuts', 'hotkeys', 'keyboard', 'help'],
  ['calendar', 'planner', 'content calendar', 'schedule'],
  ['results', 'reports', 'analytics', 'statistics', 'stats', 'insights', 'metrics'],
  ['today', 'dashboard', 'home', 'overview'],
  ['import', 'upload', 'add contacts', 'csv'],
  ['ask in sql', 'query', 'database'],
  ['bought', 'purchased', 'ordered', 'orders', 'customer'],
  ['opened', 'read', 'viewed'],
  ['clicked', 'tapped', 'followed a link'],
  ['anniversary', 'birthday'],
]

/** Whether `word` stands in `text` as a word of its own, or begins one in the plural: "tag" in "Fields, tags, lists". */
function hasWord(text: string, word: string): boolean {
  const at = text.indexOf(word)
  if (at < 0) return false
  const before = at === 0 || /[^\p{L}\p{N}]/u.test(text[at - 1]!)
  const after = text.slice(at + word.length)
  return before && /^(s|es)?($|[^\p{L}\p{N}])/u.test(after)
}

/** Everything else that somebody may call what is shown under these words, one after another. */
export function otherWordsFor(label: string): string[] {
  const text = label.toLowerCase()
  return [...new Set(groups.flatMap((group) => (hasWord(text, group[0]!) ? group.slice(1) : [])))]
}

/** Whether what is shown as `label` is what somebody looks for who typed this. */
export function isFoundBy(label: string, typed: string): boolean {
  const wanted = typed.trim().toLowerCase()
  if (label.toLowerCase().includes(wanted)) return true
  if (wanted.length < 2) return false
  return otherWordsFor(label).some(
    (other) => other.startsWith(wanted) || other.includes(` ${wanted}`) || wanted === `${other}s`,
  )
}
