import { openCustomerFile } from './customer-file'
import { followClock } from './followed-clock'
import { openNames, resolverOf } from './names/server'
import { openFiling } from './post-office/filing'
import { openImap } from './post-office/imap'
import { Mailboxes } from './post-office/mailboxes'
import { keepProviders, providerOf } from './post-office/providers'
import { openPostOffice } from './post-office/smtp'
import { gatherReaders } from './readers/readers'
import { openCustomers } from './shop/customers'
import { tellOver } from './shop/telling'
import { visitForm } from './visitors/visit'
import { openWeb } from './web/server'
import { readSiteForms } from './web/site-forms'

const smtpPort = Number(process.env.WORLD_SMTP_PORT || 4525)
const webPort = Number(process.env.WORLD_WEB_PORT || 4580)
const namesPort = Number(process.env.WORLD_DNS_PORT || 4553)
const imapPort = Number(process.env.WORLD_IMAP_PORT || 4543)
const clockUrl = process.env.WORLD_CLOCK_URL || ''
const reportsUrl = process.env.WORLD_REPORTS_URL || null

const shopApi = process.env.WORLD_SHOP_API || ''
const shopToken = process.env.WORLD_SHOP_TOKEN || ''

const forms = readSiteForms(process.env.WORLD_SITE_FORMS || null, process.env.WORLD_SATCHEL || '')

const kept = keepProviders(process.env.WORLD_PROVIDERS || null)
const clock = followClock(clockUrl, Date.now)
const mailboxes = new Mailboxes()
const telling = shopApi && shopToken ? tellOver(shopApi, shopToken) : null
const readers = gatherReaders({
  clock,
  reportsUrl,
  seed: process.env.WORLD_SEED || 'sandreach',
  tell: telling?.tell ?? null,
  customers: openCustomers(process.env.WORLD_CUSTOMERS || null),
  site: forms && {
    forms,
    visit: (visitor) => visitForm(visitor, forms, `http://127.0.0.1:${webPort}`),
  },
})
const zone = process.env.WORLD_ZONE || null
const filing = openFiling(resolverOf(zone))
const postOffice = openPostOffice({
  now: clock.now,
  async arrived(mail) {
    const { folder, source } = await filing.file(mail, providerOf(mail.address))
    const letter = readers.received({ ...mail, folder })
    mailboxes.put({
      address: mail.address,
      from: mail.returnPath,
      subject: letter.subject,
      messageId: letter.messageId,
      at: clock.now(),
      folder,
      source,
    })
  },
})
// A client that goes away in the middle of a conversation is no reason to stop.
postOffice.on('error', () => {})
const customerFile = openCustomerFile(clock.now, (address, number) =>
  telling?.tell({
    kind: 'events',
    entry: {
      address,
      name: 'in customer file',
      properties: { number },
      at: new Date(clock.now()).toISOString(),
    },
  }),
)
const web = openWeb({
  customers: customerFile,
  mailboxes,
  now: clock.now,
  providersChanged: kept.save,
  forms,
  waiting: () => readers.waiting() + (telling?.waiting() ?? 0),
})

const names = openNames(zone)
names.bind(namesPort, '127.0.0.1')
const imap = openImap(mailboxes)
imap.listen(imapPort, '127.0.0.1')

postOffice.listen(smtpPort, '127.0.0.1', () =>
  web.listen(webPort, '127.0.0.1', () =>
    console.log(JSON.stringify({ name: 'world', msg: 'world runs', smtpPort, webPort })),
  ),
)

for (const signal of ['SIGTERM', 'SIGINT'] as const)
  process.on(signal, () => {
    readers.stop()
    telling?.stop()
    clock.stop()
    web.close()
    names.close()
    imap.close()
    postOffice.close(() => process.exit(0))
    setTimeout(() => process.exit(0), 500)
  })
