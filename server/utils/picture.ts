export type { LibraryPicture } from '~~/database/letters'
