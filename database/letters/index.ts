/**
 * Letters as they are and were, and what they are made of: letterheads, stamps, pictures, templates, links, feeds;
 * and what the team says about them.
 */
export { addComment, commentsOn, deleteComment, resolveComment } from './comments'
export { askForFeed, feedState, feedsToRead, saveFeed } from './feeds'
export { letterVersion, letterVersions, saveLetter } from './history'
export type { Author } from './history'
export { letterOf } from './letter'
export {
  addLetterhead,
  changeLetterhead,
  chooseLetterhead,
  letterheadIdOf,
  letterheadOf,
  letterheads,
  ownLetterheadVersion,
  setLetterheadDeleted,
  wholeLetterOf,
} from './letterheads'
export { linkChecks, linksToCheck, saveLinkCheck } from './links'
export {
  keepTemplate,
  ownTemplateLetter,
  ownTemplateName,
  ownTemplates,
  setTemplateDeleted,
} from './own-templates'
export { addOwnWord, ownWords, removeOwnWord } from './own-words'
export { pickerFor, picksOffered, productCategories } from './picks'
export type { Picker } from './picks'
export {
  addPicture,
  keepSize,
  libraryPictures,
  pictureByHash,
  pictureById,
  setPictureRemoved,
  sizedPicture,
  updatePicture,
  pictureShapes,
} from './pictures'
export {
  addStamp,
  changeStamp,
  readStampContent,
  readStamps,
  renameStamp,
  setStampDeleted,
  stampById,
  stampContents,
} from './stamps'
