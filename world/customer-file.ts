import type { IncomingMessage, ServerResponse } from 'node:http'

/** Where programs hand people over to the shop's customer file. */
export const DESK = 'desk.galewright.example'

interface Customer {
  number: string
  address: string
  fields: Record<string, unknown>
  at: number
}

/** What a program sends of somebody. */
interface Told {
  id: string
  how: 'add' | 'update' | 'both'
  address: string
  fields: Record<string, unknown>
}

const MOST = 64 * 1024

/**
 * The shop's file of customers, to which mailing programs hand people over: it adds them or changes who is there, says which
 * and under what number, and refuses what it was not asked for. What it was told under the same key, it answers as before.
 * @param tell Tells the mailing program that somebody is in the file now.
 */
export function openCustomerFile(
  now: () => number,
  tell: (address: string, number: string) => void,
) {
  const customers = new Map<string, Customer>()
  const answers = new Map<string, { status: number; body: object }>()

  function take({ id, how, address, fields }: Told): { status: number; body: object } {
    const known = answers.get(id)
    if (known) return known
    const there = customers.get(address)
    const answer =
      !there && how === 'update'
        ? no(404, 'unknown')
        : there && how === 'add'
          ? no(409, 'known')
          : put()
    answers.set(id, answer)
    return answer

    function put() {
      const number = there?.number ?? `K-${1_001 + customers.size}`
      customers.set(address, {
        number,
        address,
        fields: { ...there?.fields, ...fields },
        at: now(),
      })
      if (!there) tell(address, number)
      return { status: 200, body: { result: there ? 'updated' : 'added', number } }
    }
  }

  return {
    /** Answers a program: JSON by POST. */
    async answer(request: IncomingMessage, response: ServerResponse) {
      const told = request.method === 'POST' ? readTold(await bodyOf(request)) : null
      const { status, body } = told ? take(told) : no(400, 'not understood')
      response.writeHead(status, { 'Content-Type': 'application/json' })
      response.end(JSON.stringify(body))
    },
    all: (): Customer[] => [...customers.values()].toReversed(),
  }
}
export type CustomerFile = ReturnType<typeof openCustomerFile>

const no = (status: number, result: string) => ({ status, body: { result } })

function readTold(body: string): Told | null {
  try {
    const { id, how, person, fields } = JSON.parse(body) as Record<string, unknown>
    const { address } = (person ?? {}) as Record<string, unknown>
    const isHow = how === 'add' || how === 'update' || how === 'both'
    return typeof id === 'string' && typeof address === 'string' && isHow
      ? { id, how, address, fields: (fields ?? {}) as Record<string, unknown> }
      : null
  } catch {
    return null
  }
}

async function bodyOf(request: IncomingMessage): Promise<string> {
  let body = ''
  for await (const piece of request) if ((body += String(piece)).length > MOST) return ''
  return body
}

/** The file as its people see it. */
export function customerFilePage(customers: readonly Customer[]): string {
  const html = (text: string) => text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`)
  const shown = (value: unknown) => (typeof value === 'string' ? value : JSON.stringify(value))
  const rows = customers
    .slice(0, 500)
    .map(({ number, address, fields, at }) => {
      const values = Object.entries(fields).map(([name, value]) => `${name}: ${shown(value)}`)
      return `<tr><td>${number}<td>${html(address)}<td>${values.map(html).join('<br>')}<td>${new Date(at).toISOString().slice(0, 16)}`
    })
    .join('')
  return `<!doctype html><html lang="en"><title>Customer file</title>
<style>body{font:15px/1.5 system-ui;max-width:60rem;margin:2rem auto;padding:0 1rem}td,th{text-align:left;padding:.3rem 1rem .3rem 0;vertical-align:top;border-bottom:1px solid #ddd}</style>
<h1>Customer file</h1><p>Who was handed over to ${DESK}: ${customers.length}.</p>
<table><tr><th>Number<th>Address<th>What else<th>Since</tr>${rows}</table></html>`
}
