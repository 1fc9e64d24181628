import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { setupCode } from './signed-in'

/** The built web process on a data folder, with the processes that it starts. */
export async function startWeb(data: string): Promise<{ port: number; stop(): Promise<void> }> {
  const port = 20_000 + (process.pid % 20_000)
  const web = spawn(process.execPath, ['.output/server/index.mjs'], {
    env: {
      ...process.env,
      NODE_ENV: 'production',
      SATCHEL_DATA: data,
      SATCHEL_URL: `http://127.0.0.1:${port}`,
      PORT: String(port),
      NITRO_PORT: String(port),
      HOST: '127.0.0.1',
      SATCHEL_SETUP_CODE: setupCode,
    },
    stdio: ['ignore', 'ignore', 'inherit'],
  })
  const answers = () =>
    fetch(`http://127.0.0.1:${port}/api/session`).then(
      (answer) => answer.ok,
      () => false,
    )
  const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))
  while (!(await answers())) await wait(100)
  // Whoever is not signed in is told so by a reader; with it all its processes have begun.
  await fetch(`http://127.0.0.1:${port}/api/fields`)
  await wait(3_000)
  return {
    port,
    async stop() {
      web.kill('SIGKILL')
      if (web.exitCode === null && web.signalCode === null) await once(web, 'exit')
    },
  }
}
