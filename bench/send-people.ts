import { join } from 'node:path'
import { closeDatabase, openDatabase, transact } from '../database'
import { addList } from '../database/people'
import { fillAccount, somebody } from '../database/made-up'

/** Makes an account with a list of so many people; in a process of its own, so that it counts in nobody's memory. */
const [folder, people] = process.argv.slice(2) as [string, string]
const db = openDatabase(join(folder, 'ours'))
fillAccount(db, { zone: 'UTC', sender_address: 'hello@bench.example' })
const list = addList(db, { name: 'Wind notes', description: '' }, 0)
transact(db, () => {
  for (let i = 0; i < Number(people); i++)
    somebody(db, `reader${i}`, {
      list,
      values: { first_name: `Tamsin ${i}`, last_name: 'Aldergate', town: 'Orrin' },
    })
})
closeDatabase(db)
console.log(JSON.stringify({ people: Number(people) }))
