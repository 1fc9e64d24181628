/** Whether something went wrong because there is no room: the disk is full, or the database has all that it may. */
export function isDiskFull(error: unknown): boolean {
  const { code, cause } = (error ?? {}) as { code?: unknown; cause?: unknown }
  if (code === 'SQLITE_FULL' || code === 'ENOSPC' || code === 'EDQUOT') return true
  return cause !== undefined && cause !== error && isDiskFull(cause)
}

export const diskFullWords =
  'There is no room left on the disk of this Satchel, so nothing of this was kept. Make room, then try again.'
