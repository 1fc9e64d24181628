import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { freePorts } from '../tests/ports'
import { setupCode } from './signed-in'

/** The built web process on a data folder, with the processes that it starts. */
export async function startWeb(
  data: string,
  more: Record<string, string> = {},
): Promise<{ port: number; stop(): Promise<void> }> {
  const [port] = (await freePorts(1)) as [number]
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
      ...more,
    },
    stdio: ['ignore', 'ignore', 'inherit'],
  })
  const answers = () =>
    fetch(`http://127.0.0.1:${port}/api/session`).then(
      (answer) => answer.ok,
      () => false,
    )
  const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))
  while (!(await answers())) {
    if (web.exitCode !== null) throw new Error(`The web process ended with ${web.exitCode}.`)
    await wait(100)
  }
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
