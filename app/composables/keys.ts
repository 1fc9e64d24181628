/** Where the letters after `g` go. */
export const areas = [
  { name: 'Today', path: '/', key: 't' },
  { name: 'People', path: '/people', key: 'p' },
  { name: 'Sign-ups', path: '/sign-ups', key: 's' },
  { name: 'Mail', path: '/mail', key: 'm' },
  { name: 'Sequences', path: '/sequences', key: 'q' },
  { name: 'Standing', path: '/standing', key: 'd' },
  { name: 'Results', path: '/results', key: 'r' },
] as const

/** Whether somebody is writing, so that letters are letters. */
export function isWriting(event: KeyboardEvent): boolean {
  const on = event.target as HTMLElement | null
  return !!on && (on.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(on.tagName))
}

/** Listens for keys while the component is there. */
export function useKeys(take: (event: KeyboardEvent) => void) {
  onMounted(() => window.addEventListener('keydown', take))
  onUnmounted(() => window.removeEventListener('keydown', take))
}

/** The palette and the list of keys, opened from anywhere. */
export const useShell = defineStore('shell', {
  state: () => ({ palette: false, keys: false }),
})

/** Writes a new letter: first one chooses what to start from. */
export async function writeLetter() {
  await goTo('/mail/new')
}

/** A new mailing with the letter of a template, opened at its letter. */
export async function startLetter(template: string) {
  const goOn = wayOn()
  const made = await act<{ id: number }>('/api/mailings', 'POST', { template })
  if (made) await goOn(`/mail/${made.id}/letter`, 'The letter is begun.')
}
