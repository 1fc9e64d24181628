/** With it the bench shows that an installation is its own. */
export const setupCode = 'bench-bench'

/** Makes the owner of an installation that has none, signed in; what one asks its pages' paths with. Its answers are read whole. */
export async function signedIn(port: number): Promise<(path: string) => Promise<number>> {
  const base = `http://127.0.0.1:${port}`
  const person = {
    name: 'Bench',
    address: 'owner@bench.example',
    password: 'a long password of the bench',
  }
  const account = { code: setupCode, accountName: 'Bench', zone: 'Europe/London' }
  const made = await fetch(`${base}/api/owner`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'sec-fetch-site': 'same-origin' },
    body: JSON.stringify({ ...account, ...person }),
  })
  if (!made.ok) throw new Error(`No owner: ${await made.text()}`)
  const cookie = made.headers
    .getSetCookie()
    .map((set) => set.split(';')[0])
    .join('; ')
  return async (path) => {
    const answer = await fetch(base + path, { headers: { cookie } })
    await answer.arrayBuffer()
    return answer.status
  }
}
