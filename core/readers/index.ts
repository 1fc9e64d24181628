/** What readers decide by themselves on their own page, and the words in which they are spoken to. */
export { isPaused, maySince, pauseUntil, pauseWeeks, WEEKLY, type OwnLimits } from './limits'
export {
  dayIn,
  directionOf,
  fillWords,
  isReaderLanguage,
  languageFor,
  languageNames,
  placesIn,
  readerLanguages,
  wordsIn,
  type ChangedWords,
  type ReaderLanguage,
  type ReaderWords,
} from './words'
export {
  changedLists,
  readerFieldName,
  readerPageHtml,
  typedValue,
  valueAsTyped,
  type Notice,
  type ReaderList,
  type ReaderPage,
} from './page'
export { toldIn, type Told } from './told'
