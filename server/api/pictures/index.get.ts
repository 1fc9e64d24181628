import { libraryPictures } from '~~/database/letters'

/** The pictures of the library, and where each is used. */
export default defineEventHandler(() => libraryPictures(satchel().db))
