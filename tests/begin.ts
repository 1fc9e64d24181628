import { begin } from './moment.mjs'

/** Before each file of tests. */
begin()
