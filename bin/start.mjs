/** Starts Satchel for real: web and engine on one data folder. See docs/operators.md. */
import { resolve } from 'node:path'
import { buildIfStale, checkNode, installPackages } from './prepare.mjs'
import { keepRunning, migrateData, setupCode, waitFor, webSettings } from './processes.mjs'

checkNode()
installPackages()
buildIfStale()
const port = Number(process.env.PORT ?? 4500)
const data = resolve(process.env.SATCHEL_DATA ?? 'data')
const url = process.env.SATCHEL_URL ?? `http://127.0.0.1:${port}`
migrateData(data)
keepRunning(['web', 'engine'], webSettings(data, url, port))
await waitFor(`http://127.0.0.1:${port}/api/health`)
const { needsOwner } = await (await fetch(`http://127.0.0.1:${port}/api/session`)).json()
console.log(`Satchel runs at ${url} with its data in ${data}.`)
if (needsOwner)
  console.log(
    `\nNobody has an account yet. Make the first one here, with the setup code ${setupCode(data)}:\n\n  ${url}/welcome?code=${setupCode(data)}\n`,
  )
if (!process.env.SATCHEL_SMTP_URL)
  console.log('It sends nothing until SATCHEL_SMTP_URL names a mail server.')
