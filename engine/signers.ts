import { availableParallelism } from 'node:os'
import { Worker } from 'node:worker_threads'
import type { SignBytes } from '../core/delivery'

/** What each thread does: signs what it is told, one after the other. */
const program = `
  const { parentPort, workerData } = require('node:worker_threads')
  const { createPrivateKey, sign } = require('node:crypto')
  const key = createPrivateKey(workerData)
  parentPort.on('message', ({ no, bytes }) =>
    parentPort.postMessage({ no, signature: sign('sha256', bytes, key).toString('base64') }),
  )`

export interface Signers {
  sign: SignBytes
  close(): void
}

/**
 * Threads that sign with an RSA key (SHA-256). RSA takes longer than all else about a message, so there are as many as
 * processors but one, which is left to this thread; the runtime's own threads are left to files and name servers, which may
 * keep them waiting. What is still unsigned when they are closed is never answered.
 */
export function openSigners(pem: string): Signers {
  const waiting = new Map<number, Waiting>()
  let broken: Error | null = null
  let asked = 0
  const threads = Array.from({ length: Math.max(1, availableParallelism() - 1) }, () => {
    const thread = new Worker(program, { eval: true, workerData: pem, execArgv: [] })
    thread.unref()
    thread.on('message', ({ no, signature }: { no: number; signature: string }) => {
      waiting.get(no)!.resolve(signature)
      waiting.delete(no)
    })
    thread.on('error', (error) => {
      broken = error
      for (const { reject } of waiting.values()) reject(error)
      waiting.clear()
    })
    return thread
  })
  return {
    sign: (bytes) =>
      new Promise((resolve, reject) => {
        if (broken) return reject(broken)
        const no = asked++
        waiting.set(no, { resolve, reject })
        threads[no % threads.length]!.postMessage({ no, bytes })
      }),
    close() {
      for (const thread of threads) void thread.terminate()
    },
  }
}

interface Waiting {
  resolve: (signature: string) => void
  reject: (error: Error) => void
}
