import { generateKeyPairSync, verify } from 'node:crypto'
import { expect, test } from 'vitest'
import { rawMessage } from '../core/delivery'
import { connectMailServer } from './mail-server'
import { madeUpEngine } from './made-up'
import { madeUpAccount } from '../database/made-up'
import { readAccount } from '../database/account'
import { openSigners } from './signers'

const { publicKey, privateKey } = generateKeyPairSync('rsa', { modulusLength: 2048 })
const pem = privateKey.export({ type: 'pkcs8', format: 'pem' }).toString()

test('each of many gets its own signature, which holds for it and for no other', async () => {
  const signers = openSigners(pem)
  const texts = Array.from({ length: 41 }, (_, i) => `message ${i}`)
  const signatures = await Promise.all(texts.map((text) => signers.sign(text)))
  texts.forEach((text, i) => {
    const holds = (n: number) =>
      verify('sha256', Buffer.from(text), publicKey, Buffer.from(signatures[n]!, 'base64'))
    expect(holds(i)).toBe(true)
    expect(holds((i + 1) % texts.length)).toBe(false)
  })
  signers.close()
})

test('a key that is none fails whoever waits and whoever comes, and no copy goes out', async () => {
  const signers = openSigners('no key')
  await expect(signers.sign('a')).rejects.toThrow()
  await expect(signers.sign('b')).rejects.toThrow()
  const { db } = madeUpAccount()
  const { settings, clock } = madeUpEngine(db, { smtpUrl: 'smtp://127.0.0.1:1', sign: true })
  const server = connectMailServer(settings, readAccount(db)!, clock, signers.sign)
  const answer = await server.send(
    'a@b.example',
    'c@d.example',
    rawMessage('Subject: x\r\n\r\nx\r\n'),
  )
  expect(answer).toMatchObject({
    kind: 'unreachable',
    why: expect.stringMatching(/can’t be signed/) as string,
  })
  server.close()
  signers.close()
})
