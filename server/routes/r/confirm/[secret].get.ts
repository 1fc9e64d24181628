/** The page behind a mailed link: one button. Fetching it, as scanners do, changes nothing. */
export default defineEventHandler((event) => {
  const found = confirmingOf(event)
  if (!found) return linkOver(event)
  const { request, told } = found
  const language = told.language
  const button = (words: string, about = '') =>
    `${about && `<p>${about}</p>`}<form method="post"><button>${words}</button></form>`
  switch (request.kind) {
    case 'known':
      return publicPage(event, {
        title: told.plain('knownTitle'),
        body: button(told.html('download')),
        language,
      })
    case 'erase':
      return publicPage(event, {
        title: told.plain('eraseTitle'),
        body: button(told.html('eraseButton'), told.html('erasePageAbout')),
        language,
      })
    case 'address':
      return publicPage(event, {
        title: told.plain('addressTitle', { address: request.address! }),
        body: button(told.html('addressButton')),
        language,
      })
    case 'address-back':
      return publicPage(event, {
        title: told.plain('addressBackTitle', { address: request.address! }),
        body: button(told.html('addressBackButton')),
        language,
      })
  }
})
