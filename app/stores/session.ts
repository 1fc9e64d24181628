import type { Letterhead } from '~~/core/letters'
import { mayCall, type Handler, type Role } from '~~/core/team'

/** Who was signed in last on this page. */
let last: number | null = null

interface Known {
  needsOwner: boolean
  user: { id: number; name: string; address: string; role: Role } | null
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
    /** Whether who is signed in may call a handler; what they may not is not offered. */
    may: (state) => (handler: Handler) => mayCall(state.user?.role ?? null, handler),
  },
  actions: {
    async load() {
      this.$patch(await request<Known>('/api/session'))
      this.loaded = true
      // What one person has not saved is not shown to the next, nor saved in their name.
      if (this.user && last !== null && this.user.id !== last) forgetKeepers()
      last = this.user?.id ?? last
    },
    async signOut() {
      useLive().end()
      this.loaded = false
      await changeAt('/api/session', { method: 'DELETE' })
      forgetKeepers()
      await goTo('/sign-in')
    },
  },
})
