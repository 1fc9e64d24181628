/** What blocks are made of, for what goes out and for the paper alike. */
export { escapeHtml } from '../rendering/escape'
export { partsOf } from './block-parts'
export { evened } from './evened'
export type { Part, Type } from './part'
