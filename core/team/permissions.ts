import { isAtLeast, type Role } from './roles'

/** What a handler asks of who calls it. */
export interface Permission {
  /** `anybody`: also without being signed in. */
  least: Role | 'anybody'
  /** What the audit log says that they did; nothing where nothing is changed. */
  did?: string
  /** Done again and again while one works: noted once an hour for the same thing. */
  often?: true
  /** Asks for the password again where that was not given for an hour. */
  sensitive?: true
}

const anybody = { least: 'anybody' } as const
/** Reads, or asks something that is too long for an address. */
const read = { least: 'viewer' } as const
/** Says that one is here, or changes nothing but one's own account. */
const own = (did?: string, sensitive?: true): Permission => ({
  least: 'viewer',
  ...(did && { did }),
  ...(sensitive && { sensitive }),
})
const writer = (did: string, often?: true): Permission => ({
  least: 'writer',
  did,
  ...(often && { often }),
})
const editor = (did: string): Permission => ({ least: 'editor', did })
const sensitive = (least: Role, did: string): Permission => ({ least, did, sensitive: true })

/**
 * Every handler behind the sign-in, by its method and its file, and who may call it. A handler that is not named here does
 * not build. Programs with a token (`/api/v1`) are not people and have a check of their own.
 */
export const permissions = {
  'GET /api/health': anybody,
  'GET /api/session': anybody,
  'POST /api/session': anybody,
  'POST /api/owner': anybody,
  'POST /api/session/reset': anybody,

  'DELETE /api/session': own('signed out'),
  'POST /api/session/confirm': own(),
  'GET /api/me': read,
  'PUT /api/me/password': own('set a new password for themselves'),
  'POST /api/me/second-factor': own(undefined, true),
  'PUT /api/me/second-factor': own('set a second factor', true),
  'DELETE /api/me/second-factor': own('removed their second factor', true),
  'DELETE /api/me/sessions': own('ended all their other sessions'),
  'DELETE /api/me/sessions/[id]': own('ended one of their sessions'),

  'GET /api/users': read,
  'POST /api/users': sensitive('owner', 'let somebody in'),
  'PUT /api/users/[id]': sensitive('owner', 'changed the role of a user'),
  'DELETE /api/users/[id]': sensitive('owner', 'removed a user'),
  'POST /api/users/[id]/reset': sensitive('owner', 'made a link for a new password'),
  'GET /api/audit': { least: 'owner' },
  'GET /api/audit.csv': { least: 'owner', did: 'exported the audit log' },
  'GET /api/tokens': { least: 'owner' },
  'POST /api/tokens': sensitive('owner', 'made a token for a program'),
  'DELETE /api/tokens/[id]': sensitive('owner', 'revoked a token'),

  'GET /api/account': read,
  'PUT /api/account': editor('changed the settings'),
  'GET /api/clock': read,
  'POST /api/clock': editor('moved the practice clock'),
  'GET /api/live': read,
  'GET /api/find': read,
  'GET /api/today': read,
  'GET /api/today/sequences': read,
  'GET /api/jobs/[id]': read,

  'GET /api/calendar': read,
  'GET /api/calendar/load': read,

  'GET /api/data-out': read,
  'GET /api/data-out/[id]/file': { least: 'editor', did: 'downloaded an export' },
  'POST /api/data-out': sensitive('editor', 'asked for an export'),
  'DELETE /api/data-out/[id]': editor('deleted an export'),
  'DELETE /api/data-out/schedules/[id]': editor('ended a schedule of exports'),

  'GET /api/feeds': read,
  'POST /api/feeds': writer('had a feed read'),

  'GET /api/fields': read,
  'POST /api/fields': editor('added a field'),
  'PUT /api/fields/[key]': editor('changed a field'),
  'POST /api/fields/[key]/change': editor('changed the kind of a field, or merged it'),
  'GET /api/fields/[key]/retyping': read,
  'GET /api/fill-ins': read,

  'POST /api/imports/file': editor('uploaded a file to import'),
  'POST /api/imports/mapping': read,
  'POST /api/imports': editor('imported people, or had that counted'),
  'GET /api/imports/[id]': read,
  'GET /api/imports/[id]/head': read,
  'GET /api/imports/[id]/rows': read,
  'GET /api/imports/[id]/rows.csv': read,
  'PUT /api/imports/[id]/rows': editor('left rows out of an import'),
  'POST /api/imports/[id]/start': editor('started an import'),
  'POST /api/imports/[id]/cancel': editor('cancelled an import'),
  'POST /api/imports/[id]/undo': editor('undid an import'),

  'GET /api/labels': read,
  'POST /api/labels': writer('put a label on something'),
  'PUT /api/labels/[id]': editor('renamed a label'),
  'DELETE /api/labels/[id]': editor('deleted a label'),
  'POST /api/labels/[id]/restore': editor('restored a label'),
  'POST /api/labels/[id]/merge': editor('merged two labels'),
  'POST /api/labels/[id]/remove': writer('removed a label from something'),

  'GET /api/letterhead': read,
  'POST /api/letterhead': editor('added a letterhead'),
  'PUT /api/letterhead': editor('changed the letterhead'),
  'POST /api/letterhead/sample': read,
  'PUT /api/letterhead/[id]': editor('changed a letterhead'),
  'DELETE /api/letterhead/[id]': editor('deleted a letterhead'),
  'POST /api/letterhead/[id]/restore': editor('restored a letterhead'),

  'GET /api/lists': read,
  'POST /api/lists': editor('added a list'),
  'PUT /api/lists/[id]': editor('changed a list'),
  'GET /api/reader-words/[language]': read,
  'GET /api/reader-words/[language]/page': read,
  'PUT /api/reader-words/[language]/[name]': editor('changed what readers are told'),

  'GET /api/mailings': read,
  'POST /api/mailings': writer('made a mailing'),
  'POST /api/mailings/from-file': writer('made a mailing from a file'),
  'GET /api/mailings/subject-effects': read,
  'GET /api/mailings/[id]': read,
  'PUT /api/mailings/[id]': writer('changed a mailing', true),
  'DELETE /api/mailings/[id]': writer('deleted a mailing'),
  'GET /api/mailings/[id]/answers': read,
  'GET /api/mailings/[id]/approval': read,
  'POST /api/mailings/[id]/approval': writer('asked for approval'),
  'PUT /api/mailings/[id]/approval': editor('answered whether a letter may go out'),
  'DELETE /api/mailings/[id]/approval': writer('withdrew a question for approval'),
  'GET /api/mailings/[id]/beside': read,
  'GET /api/mailings/[id]/by': read,
  'POST /api/mailings/[id]/cancel-rest': editor('cancelled the rest of a mailing'),
  'GET /api/mailings/[id]/clicked': read,
  'GET /api/mailings/[id]/comments': read,
  'POST /api/mailings/[id]/comments': writer('commented'),
  'PUT /api/mailings/[id]/comments/[comment]': writer('changed a comment'),
  'DELETE /api/mailings/[id]/comments/[comment]': writer('deleted a comment'),
  'POST /api/mailings/[id]/copies': writer('sent copies of a letter'),
  'POST /api/mailings/[id]/dispatch': writer('sent a mailing, or scheduled it'),
  'GET /api/mailings/[id]/drop-outs': read,
  'POST /api/mailings/[id]/duplicate': writer('made a copy of a mailing'),
  'GET /api/mailings/[id]/gap': read,
  'GET /api/mailings/[id]/messages': read,
  'GET /api/mailings/[id]/happening': read,
  'GET /api/mailings/[id]/history': read,
  'GET /api/mailings/[id]/history/[version]': read,
  'POST /api/mailings/[id]/history/[version]': writer('restored an earlier version of a letter'),
  'PUT /api/mailings/[id]/letter': writer('wrote at a letter', true),
  'POST /api/mailings/[id]/move': editor('moved a mailing to another time'),
  'POST /api/mailings/[id]/overrule': { least: 'owner', did: 'overruled the proof' },
  'DELETE /api/mailings/[id]/overrule': editor('took an overruling of the proof back'),
  'POST /api/mailings/[id]/pause': writer('paused a mailing'),
  'GET /api/mailings/[id]/plan': read,
  'PUT /api/mailings/[id]/plan': writer('changed how a mailing goes out', true),
  'POST /api/mailings/[id]/presence': read,
  'GET /api/mailings/[id]/proof': read,
  'GET /api/mailings/[id]/read-as': read,
  'GET /api/mailings/[id]/renderings': read,
  'GET /api/mailings/[id]/renditions': read,
  'POST /api/mailings/[id]/resend-uncertain': editor(
    'had a mailing sent again to those of whom it is uncertain',
  ),
  'GET /api/mailings/[id]/results': read,
  'POST /api/mailings/[id]/resume': editor('resumed a mailing'),
  'GET /api/mailings/[id]/source': read,
  'POST /api/mailings/[id]/template': writer('kept a letter as a template'),
  'GET /api/mailings/[id]/trial': read,
  'POST /api/mailings/[id]/trial': writer('tried where a letter lands'),
  'POST /api/mailings/[id]/unschedule': writer('called a mailing back'),
  'GET /api/mailings/[id]/web-version': read,
  'PUT /api/mailings/[id]/web-version': editor('published a web version, or ended it'),
  'POST /api/mailings/[id]/winner': editor('chose the winner of a test'),

  'GET /api/people': read,
  'POST /api/people': editor('added somebody'),
  'POST /api/people/act': editor('changed several people'),
  'POST /api/people/export': sensitive('editor', 'exported people'),
  'GET /api/people/export-columns': read,
  'GET /api/people/ids': read,
  'GET /api/people/overview': read,
  'GET /api/people/[id]': read,
  'PUT /api/people/[id]': editor('changed somebody'),
  'POST /api/people/[id]/erase': sensitive('owner', 'erased somebody'),
  'GET /api/people/[id]/known.json': {
    least: 'editor',
    did: 'exported all that is known of somebody',
  },
  'POST /api/people/[id]/merge': editor('merged two people'),
  'POST /api/people/[id]/notes': editor('wrote a note on somebody'),
  'DELETE /api/people/[id]/notes/[note]': editor('deleted a note on somebody'),
  'POST /api/people/[id]/tasks': editor('wrote a task about somebody'),
  'PUT /api/people/[id]/tasks/[task]': editor('ticked a task about somebody'),
  'DELETE /api/people/[id]/tasks/[task]': editor('deleted a task about somebody'),

  'GET /api/pictures': read,
  'POST /api/pictures': writer('uploaded a picture'),
  'PUT /api/pictures/[id]': writer('changed a picture'),
  'DELETE /api/pictures/[id]': writer('deleted a picture'),
  'POST /api/pictures/[id]/cut': writer('cropped a picture'),
  'POST /api/pictures/[id]/restore': writer('restored a picture'),
  'GET /api/products/categories': read,
  'GET /api/results': read,
  'GET /api/results/sequences': read,

  'GET /api/segments': read,
  'POST /api/segments': writer('made a segment'),
  'POST /api/segments/ask': read,
  'GET /api/segments/compare': read,
  'POST /api/segments/counts': read,
  'POST /api/segments/members': read,
  'POST /api/segments/past-sizes': read,
  'POST /api/segments/read': read,
  'GET /api/segments/sizes': read,
  'GET /api/segments/starts': read,
  'GET /api/segments/values': read,
  'GET /api/segments/values-found': read,
  'GET /api/segments/vocabulary': read,
  'POST /api/segments/why': read,
  'GET /api/segments/[id]': read,
  'PUT /api/segments/[id]': writer('changed a segment'),
  'DELETE /api/segments/[id]': writer('deleted a segment'),
  'POST /api/segments/[id]/freeze': writer('froze a segment'),
  'POST /api/segments/[id]/restore': writer('restored a segment'),
  'GET /api/segments/[id]/trend': read,

  'GET /api/sign-ups': read,
  'POST /api/sign-ups': editor('made a sign-up'),
  'GET /api/sign-ups/[id]': read,
  'PUT /api/sign-ups/[id]': { least: 'editor', did: 'changed a sign-up', often: true },
  'DELETE /api/sign-ups/[id]': editor('deleted a sign-up'),
  'POST /api/sign-ups/[id]/restore': editor('restored a sign-up'),
  'POST /api/sign-ups/[id]/copy': editor('made a copy of a sign-up'),
  'POST /api/sign-ups/[id]/publish': editor('published a sign-up'),
  'POST /api/sign-ups/[id]/pause': editor('paused a sign-up'),
  'POST /api/sign-ups/[id]/resume': editor('let a sign-up go on'),
  'POST /api/sign-ups/[id]/end': editor('ended a sign-up'),
  'POST /api/sign-ups/files': editor('uploaded a file that a sign-up promises'),
  'POST /api/sign-ups/[id]/desk': editor('opened a sign-up at a desk'),
  'GET /api/sign-ups/[id]/calls': { least: 'editor' },
  'POST /api/sign-ups/[id]/calls': editor('sent a webhook call again'),
  'GET /api/sign-ups/[id]/letter': read,
  'GET /api/sign-ups/[id]/code': read,
  'POST /api/sign-ups/[id]/end-test': editor('ended a test of a sign-up'),
  'GET /api/sign-ups/[id]/versions/[version]': read,
  'GET /api/sign-ups/[id]/results': read,
  'GET /api/sign-ups/[id]/asking': read,
  'GET /api/sign-ups/[id]/people': read,
  'GET /api/sign-ups/[id]/sendings': read,
  'POST /api/sign-ups/[id]/sendings': editor('let sendings of a sign-up through, or dropped them'),
  'GET /api/sequences': read,
  'POST /api/sequences': editor('made a sequence'),
  'GET /api/sequences/[id]': read,
  'PUT /api/sequences/[id]': { least: 'editor', did: 'changed a sequence', often: true },
  'DELETE /api/sequences/[id]': editor('deleted a sequence'),
  'POST /api/sequences/[id]/mails': editor('added a mail to a sequence'),
  'GET /api/sequences/[id]/people': read,
  'POST /api/sequences/[id]/people': editor('let people into a sequence'),
  'POST /api/sequences/[id]/leave': editor('took somebody out of a sequence'),
  'POST /api/sequences/[id]/template': editor('began a sequence from a template'),
  'POST /api/sequences/[id]/rehearsal': read,
  'GET /api/sequences/[id]/results': read,
  'GET /api/sequences/[id]/rounds': read,
  'GET /api/sequences/[id]/results.csv': read,
  'GET /api/sequences/[id]/way': read,
  'GET /api/sequences/[id]/moving': read,
  'GET /api/sequences/[id]/waiting': read,
  'GET /api/sequences/[id]/close-mail': read,
  'GET /api/sequences/[id]/hand-overs': { least: 'editor' },
  'POST /api/sequences/[id]/hand-overs': editor('handed somebody over again'),
  'POST /api/sequences/[id]/split': editor('decided a split of a sequence'),
  'GET /api/sequences/[id]/file': read,
  'POST /api/sequences/from-file': editor('made a sequence from a file'),
  'POST /api/sequences/[id]/keep': editor('kept a sequence as a template'),
  'GET /api/sequences/kept': read,
  'DELETE /api/sequences/kept/[id]': editor('took a template of a sequence away'),
  'POST /api/sequences/kept/[id]/restore': editor('gave a template of a sequence back'),
  'POST /api/sequences/[id]/archive': editor('archived a sequence, or took it back'),
  'POST /api/sequences/[id]/duplicate': editor('duplicated a sequence'),
  'POST /api/sequences/[id]/start': editor('started or published a sequence'),
  'POST /api/sequences/[id]/pause': editor('paused a sequence'),
  'POST /api/sequences/[id]/end': editor('ended a sequence'),

  'POST /api/sql/ask': read,
  'POST /api/sql/segment': writer('made a segment from a question in SQL'),
  'GET /api/sql/views': read,

  'GET /api/stamps': read,
  'POST /api/stamps': writer('made a stamp'),
  'PUT /api/stamps/[id]': writer('changed a stamp', true),
  'DELETE /api/stamps/[id]': writer('deleted a stamp'),
  'POST /api/stamps/[id]/restore': writer('restored a stamp'),
  'GET /api/stamps/[id]/sample': read,

  'GET /api/standing': read,
  'GET /api/standing/domain': read,
  'POST /api/standing/domain': editor('had the domain checked'),

  'GET /api/tags': read,
  'GET /api/tasks': read,
  'PUT /api/tags/[id]': editor('changed a tag'),
  'DELETE /api/tags/[id]': editor('deleted a tag'),
  'POST /api/tags/[id]/join': editor('merged two tags'),

  'GET /api/templates': read,
  'POST /api/templates': writer('made a template'),
  'GET /api/templates/[key]': read,
  'DELETE /api/templates/own/[id]': writer('deleted a template'),
  'POST /api/templates/own/[id]/restore': writer('restored a template'),

  'GET /api/trial-mailboxes': read,
  'POST /api/trial-mailboxes': editor('added a trial mailbox'),
  'DELETE /api/trial-mailboxes/[id]': editor('removed a trial mailbox'),
  'POST /api/trial-mailboxes/[id]/restore': editor('restored a trial mailbox'),

  'POST /api/words': writer('added a word to the dictionary'),
  'DELETE /api/words/[word]': writer('removed a word from the dictionary'),
} as const satisfies Record<string, Permission>

/** A handler by its method and file: `PUT /api/lists/[id]`. */
export type Handler = keyof typeof permissions

/** Handlers with placeholders come after those without, as a path without is asked for by its own name. */
const patterns = Object.keys(permissions)
  .map((handler) => ({
    handler: handler as Handler,
    placeholders: handler.split('[').length - 1,
    pattern: new RegExp(
      `^${handler.replace(/[.*+?^${}()|\\]/g, '\\$&').replace(/\[\w+\]/g, '[^/]+')}$`,
    ),
  }))
  .toSorted((a, b) => a.placeholders - b.placeholders)

/** The handler that a request goes to (its path without what follows `?`), or null where none is named. */
export function handlerOf(method: string, path: string): Handler | null {
  const asked = `${method === 'HEAD' ? 'GET' : method} ${path.replace(/(?<=.)\/+$/, '')}`
  return patterns.find(({ pattern }) => pattern.test(asked))?.handler ?? null
}

export const permissionOf = (handler: Handler): Permission => permissions[handler]

/** Whether somebody may call a handler; null for nobody who is signed in. */
export function mayCall(role: Role | null, handler: Handler): boolean {
  const { least } = permissionOf(handler)
  return least === 'anybody' || (role !== null && isAtLeast(role, least))
}

/** Which handlers have no entry, and which entries no handler; `handlers` as in {@link Handler}, those of programs left out. */
export function permissionGaps(handlers: readonly string[]): { missing: string[]; idle: string[] } {
  const known = new Set<string>(Object.keys(permissions))
  const there = new Set(handlers)
  return {
    missing: handlers.filter((handler) => !known.has(handler)),
    idle: [...known].filter((handler) => !there.has(handler)),
  }
}

/** A handler by its file in `server/`: `api/lists/[id].put.ts` is `PUT /api/lists/[id]`. */
export function handlerOfFile(file: string): string {
  const [, path, method] = /^(.*)\.(get|post|put|delete)\.ts$/.exec(file) ?? []
  if (!path || !method) throw new Error(`${file} does not say its method.`)
  return `${method.toUpperCase()} /${path.replace(/\/index$/, '')}`
}
