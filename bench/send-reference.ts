import nodemailer from 'nodemailer'

/** Sends 5,000 ready-made messages of a size with nodemailer's pool in a plain loop; prints the rate. */
const [port, bytes] = process.argv.slice(2).map(Number) as [number, number]
/** As long as one with RSA 2048 is. */
const signature =
  process.argv[4] === 'signed' ? `DKIM-Signature: v=1; b=${'x'.repeat(520)}\r\n` : ''
const MESSAGES = 5_000
const line = `${'x'.repeat(74)}\r\n`
const raw = `${signature}From: hello@bench.example\r\nTo: reader@inkpost.example\r\nSubject: Ready made\r\nContent-Type: text/html; charset=utf-8\r\n\r\n${line.repeat(Math.ceil(bytes / line.length))}`
const transport = nodemailer.createTransport({
  host: '127.0.0.1',
  port,
  pool: true,
  maxConnections: 10,
  maxMessages: Infinity,
} as Parameters<typeof nodemailer.createTransport>[0])
const began = performance.now()
await Promise.all(
  Array.from({ length: MESSAGES }, (_, i) =>
    transport.sendMail({
      envelope: { from: 'b@bench.example', to: [`reader${i}@inkpost.example`] },
      raw,
    }),
  ),
)
const seconds = (performance.now() - began) / 1000
transport.close()
console.log(JSON.stringify({ rate: MESSAGES / seconds }))
