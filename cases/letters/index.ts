/** What web and engine do with letters: what one goes out with, how somebody reads it, its web version, its pictures. */
export { contentNow } from './content'
export { footersFor, footerNow, footerOf } from './footer'
export { frameOf } from './frame'
export { outgoingOf } from './outgoing'
export { readAs } from './read-as'
export { letterSample } from './sample'
export { letterToStartFrom } from './start-from'
export { webPage } from './web-page'
export {
  cutPicture,
  PictureFault,
  pictureInWidth,
  readPictureFile,
  withPlaySign,
} from './picture-file'
export { drawing } from './drawing'
