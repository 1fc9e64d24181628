import type { Directive } from 'vue'
import type { Handler } from '~~/core/team'

declare module 'vue' {
  interface GlobalDirectives {
    /** What who is signed in may not do is not offered: `<button v-may="'POST /api/mailings'">`. */
    vMay: Directive<HTMLElement, Handler>
  }
}

export default defineNuxtPlugin((nuxt) => {
  const show = (element: HTMLElement, handler: Handler) => {
    element.hidden = !useSession().may(handler)
  }
  nuxt.vueApp.directive<HTMLElement, Handler>('may', {
    mounted: (element, { value }) => show(element, value),
    updated: (element, { value }) => show(element, value),
  })
})
