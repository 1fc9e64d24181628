/** Asks for the password again, before something sensitive; one question at a time, whoever asks. */
export const useConfirming = defineStore('confirming', () => {
  const asked = ref(false)
  let answer: Promise<boolean> | null = null
  let say = (_given: boolean) => {}

  /** Shows the question; whether the password was given. */
  function ask(): Promise<boolean> {
    answer ??= new Promise<boolean>((done) => {
      asked.value = true
      say = done
    }).finally(() => {
      asked.value = false
      answer = null
    })
    return answer
  }

  /** Whether something sensitive may be done now: the password was given within the hour, or is given now. */
  async function ready(): Promise<boolean> {
    const { confirmed } = await request<{ confirmed: boolean }>('/api/me')
    return confirmed || ask()
  }

  return { asked, ask, ready, end: (given: boolean) => say(given) }
})
