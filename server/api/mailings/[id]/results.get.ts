import { mailingResults } from '~~/cases/results'

export default defineEventHandler((event) => mailingResults(satchel().db, mailingOf(event)))
