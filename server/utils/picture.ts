export type { LibraryPicture } from '~~/database/pictures'
