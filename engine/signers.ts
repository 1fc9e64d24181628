import { availableParallelism } from 'node:os'
import { Worker } from 'node:worker_threads'
import type { SignText } from '../core/delivery'

/** What each thread does: signs what it is told, one after the other. */
const program = `
  const { parentPort, workerData } = require('node:worker_threads')
  const { createPrivateKey, sign } = require('node:crypto')
  const key = createPrivateKey(workerData)
  const signatureOf = (text) => sign('sha256', Buffer.from(text, 'latin1'), key).toString('base64')
  parentPort.on('message', (asked) =>
    parentPort.postMessage(asked.map(({ no, text }) => ({ no, signature: signatureOf(text) }))),
  )`

/** So many are handed over at once: a message between threads takes time too, and the first should not wait for many. */
const TOGETHER = 8

export interface Signers {
  sign: SignText
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
    thread.on('message', (signed: { no: number; signature: string }[]) => {
      for (const { no, signature } of signed) {
        waiting.get(no)!.resolve(signature)
        waiting.delete(no)
      }
    })
    thread.on('error', (error) => {
      broken = error
      for (const { reject } of waiting.values()) reject(error)
      waiting.clear()
    })
    return thread
  })
  let together: { no: number; text: string }[] = []
  let turn = 0
  function handOver() {
    if (together.length === 0) return
    threads[turn++ % threads.length]!.postMessage(together)
    together = []
  }
  return {
    sign: (text) =>
      new Promise((resolve, reject) => {
        if (broken) return reject(broken)
        const no = asked++
        waiting.set(no, { resolve, reject })
        together.push({ no, text })
        if (together.length === 1) queueMicrotask(handOver)
        if (together.length === TOGETHER) handOver()
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
