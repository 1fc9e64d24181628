/** What somebody who leaves may say why. */
export const leaveReasons = [
  { key: 'too-many', name: 'Too many letters' },
  { key: 'not-for-me', name: 'They are not for me' },
  { key: 'never-asked', name: 'I never asked for them' },
  { key: 'elsewhere', name: 'I read it elsewhere' },
  { key: 'other', name: 'Something else' },
] as const
export type LeaveReason = (typeof leaveReasons)[number]['key']
