const KB = 1024
const MB = 1024 * KB

/** How much a request may bring, by where it goes; the first that fits. What is not named is a form: small. */
const limits: readonly (readonly [path: RegExp, bytes: number])[] = [
  // Straight to the disk, with a limit of its own.
  [/^\/api\/imports\/file$/, 1024 * MB],
  [/^\/api\/(pictures|sign-ups\/files)$/, 20 * MB],
  [/^\/api\/mailings\/from-file$/, 2 * MB],
  [/^\/api\/mailings\/\d+\/letter$/, 4 * MB],
  [/^\/api\/v1\//, 8 * MB],
  [/^\/in\/reports\//, 1 * MB],
  // Ids of everybody who was chosen in a table.
  [/^\/api\/people\/(act|export)$/, 16 * MB],
  [/^\/api\/(stamps|letterhead|templates|imports|segments|sequences|sign-ups|sql)(\/|$)/, 2 * MB],
  [/^\/api\/(session|owner)$/, 16 * KB],
  [/^\/u\//, 16 * KB],
  [/^\/r\//, 64 * KB],
  [/^\/s\//, 64 * KB],
]
const USUAL = 256 * KB

export function mostBytes(path: string): number {
  return limits.find(([pattern]) => pattern.test(path))?.[1] ?? USUAL
}

/**
 * Why the body of a request is not read, before any of it is; null where it may be. It has to say how long it is
 * (RFC 9110, 15.5.12), but for files that go straight to the disk and are counted there.
 */
export function bodyProblem(
  path: string,
  headers: { 'content-length'?: string; 'transfer-encoding'?: string },
): { statusCode: 411 | 413; message: string } | null {
  const most = mostBytes(path)
  const length = headers['content-length']
  if (length === undefined)
    return headers['transfer-encoding'] === undefined || path === '/api/imports/file'
      ? null
      : { statusCode: 411, message: 'Say how long it is: Content-Length is missing.' }
  if (Number(length) <= most) return null
  const words = most >= MB ? `${most / MB} MB` : `${most / KB} kB`
  return { statusCode: 413, message: `This is larger than ${words}, the most that is taken here.` }
}
