import { settingsOf } from '~~/database/account'

/** The settings one may change. The keys stay here. */
export default defineEventHandler(() => {
  const { sends, url } = satchel()
  const { dkim_selector } = account()
  return { ...settingsOf(account()), dkim_selector, sends, url }
})
