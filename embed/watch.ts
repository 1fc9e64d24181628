/** What is told of a visitor: that the form came into sight, and that they began to fill it in. No cookie goes along. */
export function tellSight(
  form: HTMLElement,
  { address, language, begins }: { address: string; language: string; begins: EventTarget },
) {
  const told = new Set<string>()
  const tell = (what: 'seen' | 'begun') => {
    if (told.has(what)) return
    told.add(what)
    const body = new URLSearchParams({ what, language, page: location.href.split(/[?#]/)[0]! })
    // What the page's address says of where they come from; the form keeps those that it asks for.
    for (const [name, value] of new URLSearchParams(location.search))
      if (!body.has(name)) body.set(name, value.slice(0, 200))
    void fetch(`${address}/seen`, {
      method: 'POST',
      body,
      credentials: 'omit',
      keepalive: true,
    }).catch(() => {})
  }
  begins.addEventListener('input', () => tell('begun'), { once: true })
  let timer = 0
  // Half of it in sight, or as much as the window holds, for a second.
  new IntersectionObserver(
    ([entry]) => {
      clearTimeout(timer)
      const { intersectionRect, boundingClientRect } = entry!
      const half = Math.min(boundingClientRect.height / 2, innerHeight / 2)
      if (entry!.isIntersecting && intersectionRect.height >= half - 1)
        timer = window.setTimeout(() => tell('seen'), 1_000)
    },
    { threshold: [0, 0.1, 0.25, 0.5, 0.75, 1] },
  ).observe(form)
}
