import { DAY, HOUR, MINUTE } from '../core/time'
import { permissionOf, type Handler } from '../core/team'
import { all, q, type Database } from '../database'
import { noteDeed, usersOf } from '../database/account'

/** What those who work at the kite makers' did in the last days, as the audit log has it. */
export function addDeeds(db: Database, now: number) {
  const users = new Map(usersOf(db).map((user) => [user.name.split(' ')[0], user]))
  const mailing = (name: string) => {
    const named = q.selectFrom('mailings').select('id').where('name', '=', name)
    return `/mailings/${all(db, named)[0]!.id}`
  }
  const deeds: [ago: number, who: string, handler: Handler | string, what: string][] = [
    [6 * DAY, 'Tove', 'signed in', '/session'],
    [6 * DAY - 20 * MINUTE, 'Tove', 'POST /api/imports', '/imports/1'],
    [3 * DAY, 'Wren', 'signed in', '/session'],
    [3 * DAY - 4 * MINUTE, 'Wren', 'POST /api/tokens', '/tokens/1'],
    [2 * DAY, 'Ines', 'signed in', '/session'],
    [2 * DAY - HOUR, 'Ines', 'PUT /api/mailings/[id]/letter', `${mailing('Wind notes 47')}/letter`],
    [DAY, 'Tove', 'PUT /api/mailings/[id]/plan', `${mailing('Wind notes 47')}/plan`],
    [DAY - 5 * MINUTE, 'Tove', 'POST /api/mailings/[id]/dispatch', mailing('Repair day')],
    [9 * HOUR, 'Bram', 'failed to sign in', '/session'],
    [9 * HOUR - MINUTE, 'Bram', 'signed in', '/session'],
  ]
  for (const [ago, who, handler, what] of deeds) {
    const user = users.get(who)!
    const did = handler.includes('/') ? permissionOf(handler as Handler).did! : handler
    const from = { address: '192.0.2.14', device: 'Firefox on Linux' }
    noteDeed(db, { userId: user.id, userName: user.name, did, what, ...from }, now - ago)
  }
}
