export { readInbound, type Inbound, type Reading } from './read'
export type { Trace } from './traces'
