/** So long what is sent in waits for the work to be done, ms. */
const WAITS = 6_000

/**
 * The work a browser does for what is sent in, which makes sending many dear: begun at the first key, by a script that is
 * loaded only then. Gives what is asked when the form goes: what to hand in, empty where it is not there in time.
 */
export function workFor(home: string, address: string, begins: EventTarget): () => Promise<string> {
  let work: Promise<string> | null = null
  const begin = () =>
    (work ??= import(/* @vite-ignore */ `${home}/s/work.js`)
      .then(({ doWork }: typeof import('./work')) => doWork(address))
      .catch(() => ''))
  begins.addEventListener('input', begin, { once: true })
  return async () => {
    const late = new Promise<string>((done) => setTimeout(() => done(''), WAITS))
    const done = await Promise.race([begin(), late])
    // It counts once.
    work = null
    return done
  }
}
