/** What stands in a form's HTML, as a browser would show it. */
export interface ReadForm {
  action: string
  fields: { name: string; type: string; value: string; hidden: boolean }[]
  /** The address that was asked about, where one was. */
  meant: string | null
}

/** Reads the first form of a page; null where there is none. */
export function readForm(html: string): ReadForm | null {
  const form = /<form[^>]*class="sup"[^>]*>[\s\S]*?<\/form>/.exec(html)?.[0]
  if (!form) return null
  const attribute = (tag: string, name: string) => {
    const value = new RegExp(`\\s${name}="([^"]*)"`).exec(tag)?.[1]
    return value === undefined ? null : decode(value)
  }
  const fields = [...form.matchAll(/<input[^>]*>/g)].flatMap(([tag]) => {
    const name = attribute(tag, 'name')
    const type = attribute(tag, 'type') ?? 'text'
    return name
      ? [
          {
            ...{ name, type, value: attribute(tag, 'value') ?? '' },
            hidden: type === 'hidden' || attribute(tag, 'tabindex') === '-1',
          },
        ]
      : []
  })
  const meant = /<button name="meant" value="([^"]*)"/.exec(form)?.[1]
  return {
    action: attribute(/<form[^>]*>/.exec(form)![0], 'action') ?? '',
    fields,
    meant: meant === undefined ? null : decode(meant),
  }
}

const decode = (text: string) =>
  text
    .replaceAll('&lt;', '<')
    .replaceAll('&gt;', '>')
    .replaceAll('&quot;', '"')
    .replaceAll('&#39;', "'")
    .replaceAll('&amp;', '&')

/** What somebody enters: their address and name, what the page put there, the first box and so many of the others. */
export function fillIn(
  form: ReadForm,
  who: { address: string; given: string; source: string | null; ticks: number },
): URLSearchParams {
  const entered = new URLSearchParams()
  let boxes = 0
  for (const { name, type, value, hidden } of form.fields) {
    if (name === 'h.utm_source') entered.set(name, who.source ?? '')
    else if (type === 'hidden') entered.set(name, value)
    else if (hidden) entered.set(name, '')
    else if (type === 'checkbox') {
      if (boxes++ === 0 || who.ticks * boxes < 0.9) entered.set(name, value)
    } else entered.set(name, type === 'email' ? who.address : type === 'text' ? who.given : value)
  }
  return entered
}
