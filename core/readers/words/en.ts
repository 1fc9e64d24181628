/**
 * Everything that readers see from Satchel itself, in English. Every other language has the same words under the same
 * names; what stands in braces is filled in.
 */
export const en = {
  unsubscribe: 'Unsubscribe',
  yourPage: 'Change what you get',

  askUnsubscribe: 'Unsubscribe from {list}?',
  onlyThisList:
    '{sender} will not send you {list} any more. Other lists you asked for stay as they are.',
  atOnce: 'It takes effect at once.',
  unsubscribed: 'You are unsubscribed from {list}',
  notSentAnyMore: '{sender} does not send it to you any more.',
  mistake: 'That was a mistake, keep sending {list}',
  onListAgain: 'You are on {list} again',
  nothingLost: 'Nothing is lost. You will get the next one.',
  thanks: 'Thank you',
  nothingMore: 'You are unsubscribed from {list}, and nothing more comes.',
  askWhy: 'Would you say why?',
  whyTooMany: 'Too many letters',
  whyNotForMe: 'They are not for me',
  whyNeverAsked: 'I never asked for them',
  whyElsewhere: 'I read it elsewhere',
  whyOther: 'Something else',
  ownWords: 'In your words',
  sayWhy: 'Say why',
  deadLink: 'This link leads nowhere',
  deadLinkAbout: 'It is incomplete, or it was not made by us. Nothing has changed.',

  pageTitle: 'What we send you',
  pageAbout: '{sender} writes to {address}.',
  suppressed:
    'Nothing goes there at the moment, because mail to it came back or was marked as unwanted.',
  lists: 'Your lists',
  subscribedSince: 'subscribed since {date}',
  notSubscribed: 'not subscribed',
  noLists: 'You are on no list, so nothing comes.',
  saveLists: 'Save your lists',
  fewer: 'Fewer letters',
  pauseFor: 'Pause for {weeks} weeks',
  pauseAbout: 'Nothing comes until then; you stay on your lists.',
  pausedUntil: 'Paused until {date}.',
  endPause: 'Send me mail again',
  weekly: 'At most one letter a week',
  weeklyNow: 'You get at most one letter a week.',
  noLimit: 'Send me every letter',
  details: 'About you',
  firstName: 'First name',
  lastName: 'Last name',
  yes: 'yes',
  no: 'no',
  notSaid: 'not said',
  severalApart: 'several, with commas between them',
  saveDetails: 'Save what is about you',
  newAddress: 'Another address',
  newAddressAbout:
    'We write to the new address first. It is changed when you press the button there.',
  newAddressLabel: 'New address',
  sendThere: 'Send a link there',
  known: 'What we know of you',
  knownAbout:
    'We send a link to {address}. It works for one hour, so that nobody else who has one of your letters can open it.',
  sendLink: 'Send me the link',
  erase: 'Be erased',
  eraseAbout:
    'Everything we know of you goes, for good. We send a link to {address}, where you say so once more.',
  everything: 'Nothing any more',
  everythingAbout: 'One press, and you are on no list of ours.',
  unsubscribeAll: 'Unsubscribe from everything',
  saved: 'Saved. It takes effect at once.',
  wrongAddress: 'This is not an address that can be written to. Please look at it again.',
  wrongValue: '“{field}” could not be read, so nothing was saved. Please look at it again.',
  tooOften:
    'A link was sent a short while ago. Please look into your mailbox, or try again in an hour.',

  sent: 'Look into your mailbox',
  sentAbout: 'A letter with a link goes to {address}. The link works for one hour.',
  backToPage: 'Back to what we send you',
  linkOver: 'This link is over',
  linkOverAbout:
    'It was used already, or its time has passed. On your page you can ask for a new one.',
  notYou: 'If you did not ask for this, you need not do anything.',
  mailKnownSubject: 'What {sender} knows of you',
  mailKnown:
    'You asked to see everything that {sender} knows of you. This link works for one hour:',
  mailEraseSubject: 'Shall {sender} erase everything about you?',
  mailErase:
    'You asked {sender} to erase everything about you. Nothing is erased before you press the button behind this link, within one hour:',
  mailAddressSubject: 'Is this your address?',
  mailAddress:
    'You asked {sender} to write to this address from now on. Nothing is changed before you press the button behind this link, within one hour:',
  mailChangedSubject: 'Your address has changed',
  mailChanged:
    'What {sender} sent to this address goes to another one from now on, because somebody with one of your letters asked for it and confirmed the new address. If that was not you, press the button behind this link within two weeks:',
  knownTitle: 'Everything we know of you',
  download: 'Download it as a file',
  eraseTitle: 'Erase everything about you?',
  erasePageAbout: 'It can’t be undone. Nothing comes any more, and nothing is kept.',
  eraseButton: 'Erase everything',
  erased: 'Everything is erased',
  erasedAbout: 'We know nothing of you any more, and nothing comes.',
  addressTitle: 'Is {address} your address?',
  addressButton: 'Yes, write to me here',
  addressChanged: 'From now on we write to {address}',
  addressBackTitle: 'Change it back to {address}?',
  addressBackButton: 'Yes, change it back',
} as const

/** What readers see, by its name. */
export type ReaderWords = Readonly<Record<keyof typeof en, string>>
