import { whoGoesWhere } from '~~/database/sequences'

/** Who stands where inside, by version, and whether they could go on by the map as it is drawn now. */
export default defineEventHandler((event) => whoGoesWhere(satchel().db, sequenceOf(event)))
