/** An address by which the sign-up's form stands on a tablet at a desk. */
export default defineEventHandler((event) => {
  const signUp = signUpOf(event)
  if (signUp.state !== 'live') throw refused('It is not live.')
  return deskAddress(signUp)
})
