import { libraryPictures } from '~~/database/pictures'

/** The pictures of the library, and where each is used. */
export default defineEventHandler(() => libraryPictures(satchel().db))
