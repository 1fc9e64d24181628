import { join } from 'node:path'
import { closeDatabase, openDatabase, q, run, transact } from '../database'
import { createAccount } from '../database/account'
import { addList } from '../database/lists'
import { changeSubscription } from '../database/subscriptions'

/** Makes an account with a list of so many people; in a process of its own, so that it counts in nobody's memory. */
const [folder, people] = process.argv.slice(2) as [string, string]
const db = openDatabase(join(folder, 'ours'))
createAccount(
  db,
  {
    name: 'Bench',
    zone: 'UTC',
    currency: 'GBP',
    sender_name: 'Bench',
    sender_address: 'hello@bench.example',
    postal_address: '1 Slipway',
    pace_per_minute: null,
  },
  0,
)
const listId = addList(db, { name: 'Wind notes', description: '' }, 0)
transact(db, () => {
  for (let i = 0; i < Number(people); i++) {
    const normal = `reader${i}@inkpost.example`
    const { id } = run(
      db,
      q.insertInto('people').values({
        address: normal,
        normal,
        domain: 'inkpost.example',
        first_name: `Tamsin ${i}`,
        last_name: 'Aldergate',
        fields: JSON.stringify({ town: 'Orrin' }),
        joined_at: 0,
        changed_at: 0,
      }),
    )
    changeSubscription(db, id, listId, 'subscribed', { act: 'person', way: 'form' }, 0)
  }
})
closeDatabase(db)
console.log(JSON.stringify({ people: Number(people) }))
