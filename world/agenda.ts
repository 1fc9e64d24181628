/** Things to be done at a time, the earliest first (a binary heap). */
export class Agenda<T> {
  private heap: { at: number; what: T }[] = []

  get size() {
    return this.heap.length
  }

  add(at: number, what: T) {
    const heap = this.heap
    heap.push({ at, what })
    let i = heap.length - 1
    while (i > 0) {
      const parent = (i - 1) >> 1
      if (heap[parent]!.at <= heap[i]!.at) break
      ;[heap[parent], heap[i]] = [heap[i]!, heap[parent]!]
      i = parent
    }
  }

  /** Takes what is due at `now`, at most `most`, in order. */
  takeDue(now: number, most: number): T[] {
    const due: T[] = []
    while (due.length < most && this.heap.length && this.heap[0]!.at <= now) due.push(this.pop())
    return due
  }

  private pop(): T {
    const heap = this.heap
    const first = heap[0]!
    const last = heap.pop()!
    if (heap.length) {
      heap[0] = last
      let i = 0
      for (;;) {
        const left = 2 * i + 1
        const right = left + 1
        let least = i
        if (left < heap.length && heap[left]!.at < heap[least]!.at) least = left
        if (right < heap.length && heap[right]!.at < heap[least]!.at) least = right
        if (least === i) break
        ;[heap[least], heap[i]] = [heap[i]!, heap[least]!]
        i = least
      }
    }
    return first.what
  }
}
