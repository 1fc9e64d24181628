/** From so long on a question is said to wait, ms: what is answered at once says nothing. */
const LATE = 600
const late = shallowReactive(new Set<symbol>())

/** Notes that an answer is waited for, until it is there. */
export function waitsFor<T>(answer: Promise<T>): Promise<T> {
  const of = Symbol()
  const timer = setTimeout(() => late.add(of), LATE)
  const over = () => {
    clearTimeout(timer)
    late.delete(of)
  }
  answer.then(over, over)
  return answer
}

/** Whether the page waits for an answer by now. */
export function useWaiting() {
  return computed(() => late.size > 0)
}
