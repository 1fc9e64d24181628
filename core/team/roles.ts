/** What somebody may do who works here; each role may all that those before it may. */
export const roles = ['viewer', 'writer', 'editor', 'owner'] as const
export type Role = (typeof roles)[number]

/** Each role in a few words, as it is offered. */
export const rolesInWords: Record<Role, string> = {
  viewer: 'reads everything, changes nothing',
  writer: 'letters and segments; sends only what was approved',
  editor: 'everything but users, tokens, senders and erasing',
  owner: 'everything',
}

/** Whether somebody of one role may what needs at least another. */
export function isAtLeast(role: Role, least: Role): boolean {
  return roles.indexOf(role) >= roles.indexOf(least)
}
