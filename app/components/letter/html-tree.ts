import { defineComponent, h, type VNodeArrayChildren } from 'vue'

/** A place in the HTML where something is edited: its name, and whether it may be missing from what goes out. */
export interface PlaceInHtml {
  name: string
  mayBeMissing: boolean
}

/** What stands in HTML for such a place. */
export const placeMark = (name: string, mayBeMissing = false) =>
  `<span data-place="${name}"${mayBeMissing ? ' data-may-be-missing' : ''}></span>`

/**
 * Draws the renderer's HTML with its places taken by the slot `place`, so that nothing of it is made anew while one
 * writes. Links are only drawn: on the paper they are written, not followed. `rows`: the HTML of a table's rows.
 * `leavesOut`: whether a place that may be missing is, with the line around it.
 */
export default defineComponent({
  name: 'HtmlTree',
  props: {
    html: { type: String, required: true },
    rows: Boolean,
    leavesOut: { type: Function as PropType<(name: string) => boolean>, default: () => false },
  },
  setup(props, { slots }) {
    const tree = computed(() => {
      const whole = props.rows ? `<table><tbody>${props.html}</tbody></table>` : props.html
      const { body } = new DOMParser().parseFromString(whole, 'text/html')
      return props.rows ? body.querySelector('tbody')! : body
    })
    const placeOf = (node: Node | null): PlaceInHtml | null =>
      node instanceof HTMLElement && node.dataset.place !== undefined
        ? { name: node.dataset.place, mayBeMissing: 'mayBeMissing' in node.dataset }
        : null
    const isLeftOut = (element: Element) => {
      const only = element.childNodes.length === 1 ? placeOf(element.firstChild) : null
      return !!only?.mayBeMissing && props.leavesOut(only.name)
    }
    function draw(node: Node): VNodeArrayChildren {
      if (node instanceof Text) return [node.data]
      const place = placeOf(node)
      if (place) return slots.place?.(place) ?? []
      if (!(node instanceof Element) || isLeftOut(node)) return []
      const attributes = [...node.attributes].filter(({ name }) => name !== 'href' && name !== 'id')
      const named = Object.fromEntries(attributes.map(({ name, value }) => [name, value]))
      return [h(node.localName, named, [...node.childNodes].flatMap(draw))]
    }
    return () => [...tree.value.childNodes].flatMap(draw)
  },
})
