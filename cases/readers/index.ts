/** What readers do by themselves on their own page, and the mail that confirms it. */
export { readerPage, toldTo } from './page'
export { changeLists, changeValues, leaveEverything, type ReaderAct } from './changes'
export { changeAddress, eraseMyself } from './confirmed'
export { requestMail } from './request-mail'
