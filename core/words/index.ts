/** The trade's other words for what Satchel calls by one: whoever types one finds the thing. */
export { isFoundBy, otherWordsFor } from './other-words'
