/**
 * The demo, from a fresh clone to a page one is signed in to: installs and builds what is missing,
 * makes the demo account, and starts web, engine and practice world.
 * --fresh makes the account anew; --size N makes a larger one.
 */
import { spawnSync } from 'node:child_process'
import { existsSync, readFileSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { join, resolve } from 'node:path'
import { buildIfStale, checkNode, installPackages, root } from './prepare.mjs'
import { keepRunning, migrateData, secretOf, waitFor, webSettings } from './processes.mjs'

checkNode()
installPackages()
buildIfStale()
const port = Number(process.env.PORT ?? 4500)
const smtpPort = Number(process.env.WORLD_SMTP_PORT ?? 4525)
const webPort = Number(process.env.WORLD_WEB_PORT ?? 4580)
const dnsPort = Number(process.env.WORLD_DNS_PORT ?? 4553)
const imapPort = Number(process.env.WORLD_IMAP_PORT ?? 4543)
const data = resolve(process.env.SATCHEL_DATA ?? join(root, '.data', 'demo'))
const url = process.env.SATCHEL_URL ?? `http://127.0.0.1:${port}`
for (const [name, wanted] of [
  ['PORT', port],
  ['WORLD_SMTP_PORT', smtpPort],
  ['WORLD_WEB_PORT', webPort],
  ['WORLD_IMAP_PORT', imapPort],
])
  await checkPort(name, wanted)

if (process.argv.includes('--fresh')) rmSync(data, { recursive: true, force: true })
if (!existsSync(join(data, 'made'))) {
  const made = spawnSync(
    process.execPath,
    [join(root, '.output', 'processes', 'demo.mjs'), data, ...process.argv.slice(2)],
    { stdio: 'inherit' },
  )
  if (made.status !== 0) process.exit(made.status ?? 1)
}
const enterKey = secretOf(data, 'enter')
const reportsKey = secretOf(data, 'reports')
const shopToken = join(data, 'shop.secret')
migrateData(data)
keepRunning(['web', 'engine', 'world'], {
  ...webSettings(data, url, port),
  SATCHEL_SMTP_URL: `smtp://127.0.0.1:${smtpPort}`,
  SATCHEL_WEB_PROXY: `http://127.0.0.1:${webPort}`,
  SATCHEL_MAY_REACH: `127.0.0.1:${imapPort}`,
  SATCHEL_DNS: `127.0.0.1:${dnsPort}`,
  SATCHEL_ENTER_KEY: enterKey,
  SATCHEL_REPORTS_KEY: reportsKey,
  SATCHEL_WORLD_URL: `http://127.0.0.1:${webPort}`,
  WORLD_SMTP_PORT: String(smtpPort),
  WORLD_WEB_PORT: String(webPort),
  WORLD_DNS_PORT: String(dnsPort),
  WORLD_IMAP_PORT: String(imapPort),
  WORLD_ZONE: join(data, 'zone.json'),
  WORLD_CUSTOMERS: join(data, 'customers.txt'),
  WORLD_SITE_FORMS: join(data, 'site-forms.json'),
  WORLD_SATCHEL: url,
  WORLD_PROVIDERS: join(data, 'providers.json'),
  WORLD_CLOCK_URL: `http://127.0.0.1:${port}/practice/clock`,
  WORLD_REPORTS_URL: `http://127.0.0.1:${port}/in/reports/${reportsKey}`,
  WORLD_SHOP_API: `http://127.0.0.1:${port}/api/v1`,
  WORLD_SHOP_TOKEN: existsSync(shopToken) ? readFileSync(shopToken, 'utf8') : '',
})
await waitFor(`http://127.0.0.1:${port}/api/health`)
await waitFor(`http://127.0.0.1:${webPort}/health`)
console.log(`
Satchel runs with the demo account of Galewright Kites. Open, signed in:

  ${url}/enter/${enterKey}

Wren, an owner, is signed in. Others are tove@ (editor), ines@ (writer) and bram@galewright.example (viewer); everybody’s
password is: a fair wind for kites

Mail that goes out arrives in the practice world: http://127.0.0.1:${webPort}/mail; how its mailbox
providers and readers behave is changed there, at /providers. The shop’s own site, with its sign-ups, is at /shop.
Ctrl C ends it; npm run demo goes on where it was; npm run demo -- --fresh begins anew.`)

async function checkPort(name, wanted) {
  const free = await new Promise((done) => {
    const server = createServer()
    server.once('error', () => done(false))
    server.listen(wanted, '127.0.0.1', () => server.close(() => done(true)))
  })
  if (free) return
  console.error(`Port ${wanted} is taken. Choose another with ${name}=…, or end what uses it.`)
  process.exit(1)
}
