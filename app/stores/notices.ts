interface Notice {
  id: number
  text: string
  kind: 'done' | 'refused'
  action?: { label: string; run: () => void } | undefined
}

/** Short sentences about what just happened, at the foot of the page. */
export const useNotices = defineStore('notices', () => {
  const notices = ref<Notice[]>([])
  let last = 0
  function add(text: string, kind: Notice['kind'], action?: Notice['action']) {
    const id = ++last
    notices.value = [
      ...notices.value.filter((notice) => notice.text !== text),
      { id, text, kind, action },
    ].slice(-4)
    setTimeout(() => dismiss(id), kind === 'done' ? 6_000 : 12_000)
  }
  function dismiss(id: number) {
    notices.value = notices.value.filter((notice) => notice.id !== id)
  }
  return {
    notices,
    dismiss,
    say: (text: string, action?: Notice['action']) => add(text, 'done', action),
    refuse: (text: string) => add(text, 'refused'),
  }
})
