/** A letter's HTML for nobody in particular: a fill-in says its fallback, and nothing where it has none. */
export function forNobody(html: string): string {
  return html.replace(/\{\{([^{}]*)\}\}/g, (_, expression: string) => {
    const fallback = /\|\s*default:\s*&quot;(.*?)&quot;/.exec(expression)
    return fallback?.[1] ?? ''
  })
}
