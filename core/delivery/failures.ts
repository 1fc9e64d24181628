/**
 * Why a message did not arrive, and what that leads to:
 * - `suppress`: the address is dead; nobody writes to it again
 * - `row`: several in a row mean that it is (see {@link deadAfter})
 * - `nothing`: it is about this message or its sender, and says nothing of the address
 */
export const failures = {
  'no such address': { leadsTo: 'suppress', words: 'There is no such mailbox.' },
  'no such domain': { leadsTo: 'suppress', words: 'There is no such domain, or it takes no mail.' },
  'mailbox full': { leadsTo: 'row', words: 'The mailbox is full.' },
  busy: { leadsTo: 'row', words: 'The provider could not take it in time.' },
  unknown: { leadsTo: 'row', words: 'The provider refused the message.' },
  'too large': { leadsTo: 'nothing', words: 'The message is too large for this mailbox.' },
  'content refused': { leadsTo: 'nothing', words: 'The provider refuses what the message says.' },
  'policy or authentication': {
    leadsTo: 'nothing',
    words: 'The provider refuses our mail by its policy.',
  },
  'blocked for reputation': {
    leadsTo: 'nothing',
    words: 'The provider refuses mail from our address for its reputation.',
  },
} as const satisfies Record<string, { leadsTo: 'suppress' | 'row' | 'nothing'; words: string }>

export type Failure = keyof typeof failures

/** So many mailings in a row that did not arrive, the first at least so long before the last, mean a dead address. */
export const deadAfter = { mailings: 5, days: 14 } as const

export function isFailure(text: string | null): text is Failure {
  return text !== null && text in failures
}

/**
 * Why, by the enhanced status code (RFC 3463, "5.1.1"; null where there is none) and by the words beside it. A code that
 * means one thing is believed; those that servers use for anything (x.0.0, x.7.1) are read by the words.
 */
export function failureOf(status: string | null, words: string): Failure {
  const text = words.replace(/\s+/g, ' ')
  const [, hard, subject, detail] = /^([245])\.(\d{1,3})\.(\d{1,3})$/.exec(status ?? '') ?? []
  const code = `${subject}.${detail}`
  const meant = subject && byCode.find(([pattern]) => pattern.test(code))?.[1]
  if (meant && (hard === '5' || !needsFive.has(meant))) return meant
  return (
    byWords.find(([, pattern]) => pattern.test(text))?.[0] ??
    (subject === '7' && hard === '5'
      ? 'policy or authentication'
      : hard === '4'
        ? 'busy'
        : (byReplyCode(text) ?? 'unknown'))
  )
}

/** A code of the address that says "for now" is not about its being there. */
const needsFive = new Set<Failure>(['no such address', 'no such domain'])

/** By subject and detail of the status (RFC 3463 and its registry). */
const byCode: [RegExp, Failure][] = [
  [/^1\.[136]$|^2\.1$/, 'no such address'],
  [/^1\.(2|10)$|^4\.4$/, 'no such domain'],
  [/^2\.2$/, 'mailbox full'],
  [/^2\.3$|^3\.4$/, 'too large'],
  [/^4\.7$/, 'busy'],
  [/^6\.\d+$/, 'content refused'],
  [/^7\.(2\d|30)$/, 'policy or authentication'],
]

/** By words, the more telling first. Several languages, since servers write in their users'. */
const byWords: [Failure, RegExp][] = [
  [
    'no such domain',
    /host (?:or domain name )?(?:unknown|not found)|nxdomain|name service error|unable to look up host|(?:find any host|no host) (?:named|by that name)|null mx|domain (?:does not exist|not found|is unknown)|unknown (?:host|domain)|no such (?:host|domain)/i,
  ],
  [
    'mailbox full',
    /(?:mail ?box|in ?box|folder|quota|storage|account)[^.:]{0,40}(?:is full|\bfull\b|exceeded|exhausted|over its (?:storage|quota|limit))|over ?quota|quota (?:has been )?exceeded|mailbox size limit|out of (?:storage|space)|(?:exceeded|insufficient)[^.]{0,30}(?:quota|storage)|postfach[^.]{0,40}(?:ist )?voll|speicherplatz[^.]{0,30}ersch|bo[iî]te[^.]{0,50}(?:pleine|satur)|quota d[ée]pass|buz[oó]n[^.]{0,50}llen|cuota (?:excedida|superada)|いっぱい|容量/i,
  ],
  [
    'too large',
    /(?:message|mail)[^.]{0,30}(?:too (?:large|big)|is too long|exceeds)|(?:size|length) (?:exceeds|limit)|exceeds (?:the )?(?:fixed|maximum|administrative)|nachricht[^.]{0,20}zu gro|message[^.]{0,20}trop volumineux|mensaje[^.]{0,20}demasiado grande|サイズ/i,
  ],
  [
    'blocked for reputation',
    /block ?list|black ?list|blocked using|\b(?:dns|r)bl\b|is listed (?:at|in|on|by)|reputation|(?:user|spam) complaints|(?:ip|host|server|address)[^.:]{0,40}(?:has been |is |was )?(?:blocked|banned)|(?:blocked|banned) (?:by [^ ]+|sending ip)|sperrliste|liste noire|lista negra/i,
  ],
  [
    'no such address',
    /(?:no such|unknown|invalid|non-?existent|bad) (?:user|mailbox|recipient|address|account|local part)|(?:user|recipient|mailbox|address|account)[^.]{0,60}(?:\bunknown\b|not (?:be )?found|does(?: not|n.t) exist|do(?:es)? not exist|could(?: not|n.t) be found|unavailable|not available|no longer (?:active|valid|in use|on)|inactive|deactivated|disabled|closed|has been (?:deleted|removed))|(?:does(?: not|n.t) exist|couldn.t be found|recipnotfound)|no (?:mailbox|user)[^.]{0,20}(?:here|by that name)|not (?:our|a) (?:user|customer|valid (?:user|recipient|mailbox))|(?<!sender )address rejected(?!: (?:unverified|grey))|does(?: not|n.t) have an? [^ ]+ account|unrouteable address|(?:is )?unknown here|nobody here|not like recipient|empf[äa]nger[^.]{0,40}(?:unbekannt|nicht gefunden)|adresse[^.]{0,30}(?:nicht gefunden|unbekannt|existiert nicht)|postfach[^.]{0,30}existiert nicht|utilisateur[^.]{0,20}inconnu|(?:adresse|destinataire|bo[iî]te)[^.]{0,60}(?:introuvable|inconnue?|n.existe pas)|no se encontr[oó] la direcci[oó]n|usuario[^.]{0,20}(?:no existe|desconocido)|direcci[oó]n[^.]{0,40}(?:no existe|no encontrada|no se encontr)|(?:アドレス|ユーザー|宛先)[^。]{0,20}(?:見つかりません|存在しない|存在しません)/i,
  ],
  [
    'policy or authentication',
    /\bdmarc\b|\bspf\b|\bdkim\b|authenticat|relay|rcpthosts|permission|not (?:permitted|authori[sz]ed|allowed)|restriction|access denied|sender verify|members?-only|authrequired/i,
  ],
  [
    'content refused',
    /spam|unsolicited|virus|malware|phish|content|security issue|(?:message|mail) (?:was |has been )?(?:blocked|rejected)/i,
  ],
  [
    'busy',
    /timed? ?out|timeout|connection (?:refused|reset|lost)|(?:smtp|establish an?|could not|couldn.t) connect|smtp connection|too (?:many|much)|slow down|try(?:ing)? (?:again )?later|temporar|in the queue too long|deferred|greylist|busy|not (?:yet )?been delivered|for (?:past )?\d+ (?:hours|days)|for more than \d+ hour|within (?:three|\d+) days|(?:delivery time|max(?:imum)? time)[^.]{0,20}(?:expired|exceeded)|delivery is delayed|retry for|seit \d+ stunden|reçu depuis|desde hace/i,
  ],
]

/** By the reply code alone (RFC 5321, 4.2.3), where one stands at a line's beginning or behind "said:". */
function byReplyCode(text: string): Failure | null {
  const code = /(?:^|said: |answered: |smtp; ?)(\d{3})\b/i.exec(text)?.[1]
  return code === '552' ? 'mailbox full' : code?.startsWith('4') ? 'busy' : null
}

/** The first enhanced status code in a text (RFC 3463). */
export function statusIn(text: string): string | null {
  return /(?<![\d.])([245]\.\d{1,3}\.\d{1,3})(?![\d.]*\d)/.exec(text)?.[1] ?? null
}
