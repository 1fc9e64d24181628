/** Whoever sets out for another page is not led elsewhere afterwards by what they pressed before; see `wayOn`. */
export default defineNuxtPlugin(() => {
  useRouter().beforeEach((to, from) => {
    if (to.path !== from.path) noteDeparture()
  })
})
