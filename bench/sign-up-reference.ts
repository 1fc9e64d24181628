import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import Sqlite from 'better-sqlite3'
import { createApp, defineEventHandler, readRawBody, toNodeListener } from 'h3'

/** A bare h3 handler that inserts one row of what was posted, committed before it answers; prints its port. */
const db = new Sqlite(process.argv[2]!)
db.pragma('journal_mode = wal')
db.pragma('synchronous = normal')
db.exec('create table sent (id integer primary key, body text not null) strict')
const insert = db.prepare('insert into sent (body) values (?)')
const app = createApp()
app.use(
  defineEventHandler(async (event) => {
    insert.run((await readRawBody(event)) ?? '')
    return 'Thank you.'
  }),
)
const server = createServer(toNodeListener(app))
server.listen(0, '127.0.0.1', () => console.log((server.address() as AddressInfo).port))
