import type { Letterhead } from '~~/core/letters'

interface Known {
  needsOwner: boolean
  user: { id: number; name: string; address: string; role: string } | null
  account: { name: string; zone: string; currency: string; letterhead: Letterhead } | null
  practice: boolean
  sends: boolean
  url: string
}

/** Who is signed in, and the account. */
export const useSession = defineStore('session', {
  state: (): Known & { loaded: boolean } => ({
    loaded: false,
    needsOwner: false,
    user: null,
    account: null,
    practice: false,
    sends: false,
    url: '',
  }),
  getters: {
    zone: (state) => state.account?.zone ?? 'UTC',
  },
  actions: {
    async load() {
      this.$patch(await request<Known>('/api/session'))
      this.loaded = true
    },
    async signOut() {
      useLive().end()
      await changeAt('/api/session', { method: 'DELETE' })
      forgetKeepers()
      this.loaded = false
      await navigateTo('/sign-in')
    },
  },
})
