import { once } from 'node:events'
import type { AddressInfo, Server } from 'node:net'
import { ImapFlow } from 'imapflow'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { openImap } from './imap'
import { Mailboxes, type Folder } from './mailboxes'

let server: Server
let mailboxes: Mailboxes
const address = 'tove@workdesk.example'

beforeEach(async () => {
  mailboxes = new Mailboxes()
  server = openImap(mailboxes).listen(0, '127.0.0.1')
  await once(server, 'listening')
})
afterEach(() => void server.close())

function put(no: number, folder: Folder, to = address) {
  mailboxes.put({
    ...{ address: to, from: 'hello@galewright.example', subject: `Wind ${no}`, at: no, folder },
    messageId: `<${no}@galewright.example>`,
    source: `Subject: Wind ${no}\r\nX-Note: it is\r\n\tfolded\r\n\r\nBody ${no}`,
  })
}
async function client(pass = 'practice', user = address) {
  const { port } = server.address() as AddressInfo
  const made = new ImapFlow({
    ...{ host: '127.0.0.1', port, secure: false, logger: false },
    auth: { user, pass },
  })
  await made.connect()
  return made
}

test('an independent client lists the folders, finds a message by its id and reads its headers', async () => {
  put(1, 'inbox')
  put(2, 'junk')
  put(3, 'inbox', 'ivo@workdesk.example')
  put(4, 'inbox')
  const imap = await client()
  const folders = await imap.list()
  expect(folders.map(({ path, specialUse }) => [path, specialUse])).toEqual([
    ['INBOX', '\\Inbox'],
    ['Held back', '\\Junk'],
  ])
  expect(await imap.mailboxOpen('INBOX', { readOnly: true })).toMatchObject({ exists: 2 })
  const find = (id: string) => imap.search({ header: { 'message-id': id } }, { uid: true })
  expect(await find('<4@galewright.example>')).toEqual([4])
  expect(await find('<2@galewright.example>')).toEqual([])
  const message = await imap.fetchOne('4', { headers: true }, { uid: true })
  expect(message && message.headers!.toString()).toBe(
    'Subject: Wind 4\r\nX-Note: it is\r\n\tfolded\r\n\r\n',
  )
  await imap.mailboxOpen('Held back', { readOnly: true })
  expect(await find('<2@galewright.example>')).toEqual([2])
  expect(await imap.search({ header: { 'x-note': 'folded' } }, { uid: true })).toEqual([2])
  await imap.logout()
})

test('a wrong password opens nothing, nor does somebody who is not there', async () => {
  await expect(client('guess')).rejects.toThrow()
  await expect(client('practice', 'tove@shutterbox.example')).rejects.toThrow()
})
