/** A picture as the library lists it. */
export interface LibraryPicture {
  id: number
  path: string
  name: string
  folder: string
  alt: string
  mime: string
  width: number
  height: number
  /** Bytes. */
  weight: number
  at: number
  madeFrom: string | null
  usedIn: { id: number; name: string }[]
}
