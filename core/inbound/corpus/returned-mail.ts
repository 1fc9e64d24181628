import { inUtf8, message, parts, reader, returned, returnPath, type Sample } from './compose'

const daemon = 'Mail Delivery Subsystem <MAILER-DAEMON@mx1.inkpost.example>'
const plain = (
  name: string,
  right: Sample['right'],
  from: string,
  subject: string,
  text: string,
) => ({
  name,
  right,
  raw: message({ From: from, Subject: subject }, text),
})
const written = (
  name: string,
  right: Sample['right'],
  from: string,
  subject: string,
  text: string,
) => ({
  name,
  right,
  raw: inUtf8({ From: from, Subject: subject }, text),
})

/** sendmail's transcript of a session. */
const session = (
  lines: string,
  fatal = true,
) => `The original message was received at Mon, 2 Nov 2026 09:12:40 GMT
from mail.galewright.example [198.51.100.9]

   ----- The following addresses had ${fatal ? 'permanent fatal' : 'transient non-fatal'} errors -----
<${reader}>

   ----- Transcript of session follows -----
${lines}

   ----- Original message follows -----
${returned}`

/** qmail's opening words, with what it says of the address. */
const qmail = (reason: string) => `Hi. This is the qmail-send program at mx1.inkpost.example.
I'm afraid I wasn't able to deliver your message to the following addresses.
This is a permanent error; I've given up. Sorry it didn't work out.

<${reader}>:
${reason}

--- Below this line is a copy of the message.

${returned}`

/** Exim's opening words, with what it says of the address. */
const exim = (reason: string) => `This message was created automatically by mail delivery software.

A message that you sent could not be delivered to one or more of its
recipients. This is a permanent error. The following address(es) failed:

  ${reader}
${reason}

------ This is a copy of the message, including all the headers. ------

${returned}`

/** Bounces in free form: what the usual servers write to people. */
export const returnedMail: Sample[] = [
  // sendmail
  plain(
    'sendmail: user unknown',
    'bounced: no such address',
    daemon,
    'Returned mail: see transcript for details',
    session(
      `... while talking to mx1.inkpost.example.:\n>>> DATA\n<<< 550 5.1.1 <${reader}>... User unknown\n550 5.1.1 <${reader}>... User unknown`,
    ),
  ),
  plain(
    'sendmail: host unknown',
    'bounced: no such domain',
    daemon,
    'Returned mail: Host unknown',
    session(`550 5.1.2 <${reader}>... Host unknown (Name server: inkpost.example: host not found)`),
  ),
  plain(
    'sendmail: no code but its words',
    'bounced: no such address',
    daemon,
    'Returned mail: User unknown',
    session(`550 <${reader}>... User unknown`),
  ),
  plain(
    'sendmail: mailbox full',
    'bounced: mailbox full',
    daemon,
    'Returned mail: see transcript for details',
    session(
      `>>> RCPT To:<${reader}>\n<<< 552 <${reader}>... Mailbox quota exceeded\n554 5.0.0 Service unavailable`,
    ),
  ),
  plain(
    'sendmail: could not send for four hours',
    'delayed: busy',
    daemon,
    'Warning: could not send message for past 4 hours',
    `    **********************************************
    **      THIS IS A WARNING MESSAGE ONLY      **
    **  YOU DO NOT NEED TO RESEND YOUR MESSAGE  **
    **********************************************

${session(`451 4.4.1 reply: read error from mx1.inkpost.example.\n<${reader}>... Deferred: Connection timed out with mx1.inkpost.example.\nWarning: message still undelivered after 4 hours\nWill keep trying until message is 5 days old`, false)}`,
  ),
  plain(
    'sendmail: too old',
    'bounced: busy',
    daemon,
    'Returned mail: Cannot send message for 5 days',
    session(
      `<${reader}>... Deferred: Connection refused by mx1.inkpost.example.\nMessage could not be delivered for 5 days\nMessage will be deleted from queue`,
    ),
  ),
  plain(
    'sendmail: it is too big',
    'bounced: too large',
    daemon,
    'Returned mail: see transcript for details',
    session(
      `>>> MAIL From:<${returnPath}> SIZE=2204112\n<<< 552 5.2.3 Message exceeds maximum fixed size (1048576)`,
    ),
  ),
  // Postfix
  plain(
    'Postfix: user unknown in table',
    'bounced: no such address',
    'MAILER-DAEMON@mx1.inkpost.example (Mail Delivery System)',
    'Undelivered Mail Returned to Sender',
    `This is the mail system at host mx1.inkpost.example.

I'm sorry to have to inform you that your message could not
be delivered to one or more recipients. It's attached below.

<${reader}>: host mail.inkpost.example[192.0.2.8] said: 550
    <${reader}>: Recipient address rejected: User unknown in virtual
    mailbox table (in reply to RCPT TO command)`,
  ),
  plain(
    'Postfix: name not found',
    'bounced: no such domain',
    'MAILER-DAEMON@mx1.inkpost.example (Mail Delivery System)',
    'Undelivered Mail Returned to Sender',
    `This is the mail system at host mx1.inkpost.example.

<tove@inkpots.example>: Host or domain name not found. Name service error for
    name=inkpots.example type=A: Host not found`,
  ),
  plain(
    'Postfix: content',
    'bounced: content refused',
    'MAILER-DAEMON@mx1.inkpost.example (Mail Delivery System)',
    'Undelivered Mail Returned to Sender',
    `This is the mail system at host mx1.inkpost.example.

<${reader}>: host mail.inkpost.example[192.0.2.8] said: 554 5.7.1
    Message rejected because of unacceptable content (in reply to end of
    DATA command)`,
  ),
  plain(
    'Postfix: still trying',
    'delayed: busy',
    'MAILER-DAEMON@mx1.inkpost.example (Mail Delivery System)',
    'Delayed Mail (still being retried)',
    `This is the mail system at host mx1.inkpost.example.

####################################################################
# THIS IS A WARNING ONLY.  YOU DO NOT NEED TO RESEND YOUR MESSAGE. #
####################################################################

Your message could not be delivered for more than 4 hour(s).
It will be retried until it is 5 day(s) old.

<${reader}>: connect to mail.inkpost.example[192.0.2.8]:25: Connection timed out`,
  ),
  plain(
    'Postfix: mail loops',
    'bounced: unknown',
    'MAILER-DAEMON@mx1.inkpost.example (Mail Delivery System)',
    'Undelivered Mail Returned to Sender',
    `This is the mail system at host mx1.inkpost.example.

<${reader}>: mail for inkpost.example loops back to myself`,
  ),
  plain(
    'Postfix: blocklisted',
    'bounced: blocked for reputation',
    'MAILER-DAEMON@mx1.inkpost.example (Mail Delivery System)',
    'Undelivered Mail Returned to Sender',
    `<${reader}>: host mail.inkpost.example[192.0.2.8] refused to talk to me: 554
    mail.inkpost.example: your address 198.51.100.9 is listed at bl.spamwatch.example;
    ask there to be delisted`,
  ),
  // qmail
  plain(
    'qmail: no mailbox here by that name',
    'bounced: no such address',
    'MAILER-DAEMON@mx1.inkpost.example',
    'failure notice',
    qmail('Sorry, no mailbox here by that name. (#5.1.1)'),
  ),
  plain(
    'qmail: not in the rcpthosts',
    'bounced: policy or authentication',
    'MAILER-DAEMON@mx1.inkpost.example',
    'failure notice',
    qmail("sorry, that domain isn't in my list of allowed rcpthosts (#5.7.1)"),
  ),
  plain(
    'qmail: no host by that name',
    'bounced: no such domain',
    'MAILER-DAEMON@mx1.inkpost.example',
    'failure notice',
    qmail("Sorry, I couldn't find any host named inkpost.example. (#5.1.2)"),
  ),
  plain(
    'qmail: what the other side said',
    'bounced: no such address',
    'MAILER-DAEMON@mx1.inkpost.example',
    'failure notice',
    qmail(
      '192.0.2.8 does not like recipient.\nRemote host said: 550 unknown recipient\nGiving up on 192.0.2.8.',
    ),
  ),
  plain(
    'qmail: over quota',
    'bounced: mailbox full',
    'MAILER-DAEMON@mx1.inkpost.example',
    'failure notice',
    qmail('Mail quota exceeded.'),
  ),
  plain(
    'qmail: wait no more',
    'bounced: busy',
    'MAILER-DAEMON@mx1.inkpost.example',
    'failure notice',
    qmail(
      "Sorry, I wasn't able to establish an SMTP connection. (#4.4.1)\nI'm not going to try again; this message has been in the queue too long.",
    ),
  ),
  plain(
    'qmail: the disk',
    'bounced: mailbox full',
    'MAILER-DAEMON@mx1.inkpost.example',
    'failure notice',
    qmail("Recipient's mailbox is full, message returned to sender. (#5.2.2)"),
  ),
  plain(
    'qmail: spam',
    'bounced: content refused',
    'MAILER-DAEMON@mx1.inkpost.example',
    'failure notice',
    qmail(
      '192.0.2.8 failed after I sent the message.\nRemote host said: 554 rejected as spam by the content filter',
    ),
  ),
  // Exim
  plain(
    'Exim: Unknown user',
    'bounced: no such address',
    'Mail Delivery System <Mailer-Daemon@mx1.inkpost.example>',
    'Mail delivery failed: returning message to sender',
    exim('    Unknown user'),
  ),
  plain(
    'Exim: unrouteable',
    'bounced: no such address',
    'Mail Delivery System <Mailer-Daemon@mx1.inkpost.example>',
    'Mail delivery failed: returning message to sender',
    exim('    Unrouteable address'),
  ),
  plain(
    'Exim: SMTP error after RCPT',
    'bounced: no such address',
    'Mail Delivery System <Mailer-Daemon@mx1.inkpost.example>',
    'Mail delivery failed: returning message to sender',
    exim(
      `    SMTP error from remote mail server after RCPT TO:<${reader}>:\n    host mail.inkpost.example [192.0.2.8]: 550 No Such User Here`,
    ),
  ),
  plain(
    'Exim: retry timeout exceeded',
    'bounced: busy',
    'Mail Delivery System <Mailer-Daemon@mx1.inkpost.example>',
    'Mail delivery failed: returning message to sender',
    exim('    retry timeout exceeded'),
  ),
  plain(
    'Exim: mailbox is full',
    'bounced: mailbox full',
    'Mail Delivery System <Mailer-Daemon@mx1.inkpost.example>',
    'Mail delivery failed: returning message to sender',
    exim('    mailbox is full: retry timeout exceeded'),
  ),
  plain(
    'Exim: warning',
    'delayed: busy',
    'Mail Delivery System <Mailer-Daemon@mx1.inkpost.example>',
    'Warning: message 1kF3xQ-0002tT-Lp delayed 24 hours',
    `This message was created automatically by mail delivery software.
A message that you sent has not yet been delivered to one or more of its
recipients after more than 24 hours on the queue on mx1.inkpost.example.

The address to which the message has not yet been delivered is:

  ${reader}
    Delay reason: Connection timed out

No action is required on your part. Delivery attempts will continue for
some time, and this warning may be repeated at intervals if the message
remains undelivered. Eventually the mail delivery software will give up,
and when that happens, the message will be returned to you.`,
  ),
  plain(
    'Exim: a rule of the sender',
    'bounced: policy or authentication',
    'Mail Delivery System <Mailer-Daemon@mx1.inkpost.example>',
    'Mail delivery failed: returning message to sender',
    exim(
      '    host mail.inkpost.example [192.0.2.8]: 550-5.7.1 Sender is not authenticated:\n    550 5.7.1 DKIM and SPF both failed',
    ),
  ),
  plain(
    'Exim: local delivery failed',
    'bounced: unknown',
    'Mail Delivery System <Mailer-Daemon@mx1.inkpost.example>',
    'Mail delivery failed: returning message to sender',
    exim('    local delivery failed'),
  ),
  // Mailbox providers
  plain(
    'a provider: address not found',
    'bounced: no such address',
    'Mail Delivery Subsystem <mailer-daemon@letterbird.example>',
    'Delivery Status Notification (Failure)',
    `** Address not found **

Your message wasn't delivered to ${reader} because the address couldn't be found, or is unable to receive mail.

Learn more here: https://letterbird.example/help/no-such-user

The response was:

The email account that you tried to reach does not exist. Please try double-checking the recipient's email address for typos or unnecessary spaces.`,
  ),
  plain(
    'a provider: inbox full',
    'bounced: mailbox full',
    'Mail Delivery Subsystem <mailer-daemon@letterbird.example>',
    'Delivery Status Notification (Failure)',
    `** Recipient inbox full **

Your message couldn't be delivered to ${reader}. Their inbox is full, or it's getting too much mail right now.`,
  ),
  plain(
    'a provider: blocked',
    'bounced: content refused',
    'Mail Delivery Subsystem <mailer-daemon@letterbird.example>',
    'Delivery Status Notification (Failure)',
    `** Message blocked **

Your message to ${reader} has been blocked. See technical details below for more information.

The response from the remote server was:
552-5.7.0 This message was blocked because its content presents a potential
552 5.7.0 security issue.`,
  ),
  plain(
    'a provider: incomplete, and goes on trying',
    'delayed: busy',
    'Mail Delivery Subsystem <mailer-daemon@letterbird.example>',
    'Delivery Status Notification (Delay)',
    `** Delivery incomplete **

There was a temporary problem delivering your message to ${reader}. Letterbird will retry for 46 more hours. You'll be notified if the delivery fails permanently.`,
  ),
  plain(
    'a provider: no longer active',
    'bounced: no such address',
    'MAILER-DAEMON@fernmail.example',
    'Failure Notice',
    `Sorry, we were unable to deliver your message to the following address.

<${reader}>:
554: delivery error: dd This user doesn't have a fernmail.example account (${reader}) [0] - mta114.fernmail.example`,
  ),
  plain(
    'a provider: account is inactive',
    'bounced: no such address',
    'postmaster@quillbox.example',
    'Delivery failed',
    `We could not deliver your message to ${reader}.

Reason: 550 5.1.1 The account has been inactive for over a year and was deactivated.`,
  ),
  plain(
    'a provider: complaints',
    'bounced: blocked for reputation',
    'postmaster@quillbox.example',
    'Delivery failed',
    `We could not deliver your message to ${reader}.

421 4.7.0 [TSS04] Messages from 198.51.100.9 temporarily deferred due to user complaints. We gave up after three days.`,
  ),
  plain(
    'a provider: rate',
    'bounced: busy',
    'postmaster@quillbox.example',
    'Delivery failed',
    `We could not deliver your message to ${reader} within three days.

452 Too many messages from your host, please slow down.`,
  ),
  plain(
    'a provider: unsolicited',
    'bounced: content refused',
    'postmaster@quillbox.example',
    'Delivery failed',
    `We could not deliver your message to ${reader}.

550 Our system has detected that this message is likely unsolicited mail. To reduce the amount of spam, it has been blocked.`,
  ),
  plain(
    'a provider: by a page for postmasters',
    'bounced: blocked for reputation',
    'postmaster@quillbox.example',
    'Delivery failed',
    `We could not deliver your message to ${reader}.

550 SC-001 Mail rejected for policy reasons. The sending IP 198.51.100.9 has a low reputation and is on our block list. See https://quillbox.example/postmaster`,
  ),
  {
    name: 'a provider: HTML alone',
    right: 'bounced: no such address',
    raw: message(
      {
        From: 'Mailer-Daemon <postmaster@letterbird.example>',
        Subject: 'Undeliverable mail',
        'MIME-Version': '1.0',
        'Content-Type': 'text/html; charset=utf-8',
      },
      `<html><body><h1>Address&nbsp;not found</h1><p>We couldn&#39;t deliver to <b>${reader}</b>: this <i>mailbox</i> does&nbsp;not exist.</p></body></html>`,
    ),
  },
  // Office servers
  plain(
    'office, English',
    'bounced: no such address',
    'Harbourworks Mail <postmaster@harbourworks.example>',
    'Undeliverable: Wind notes: four days of south-west',
    `Delivery has failed to these recipients or groups:

${reader}
The e-mail address you entered couldn't be found. Please check the recipient's e-mail address and try to resend the message. If the problem continues, please contact your helpdesk.

Diagnostic information for administrators:

Generating server: mx1.inkpost.example

${reader}
#550 5.1.1 RESOLVER.ADR.RecipNotFound; not found ##`,
  ),
  plain(
    'office, English: full',
    'bounced: mailbox full',
    'postmaster@harbourworks.example',
    'Undeliverable: Wind notes: four days of south-west',
    `Delivery has failed to these recipients or distribution lists:

${reader}
The recipient's mailbox is full and can't accept messages now. Please try resending this message later, or contact the recipient directly.`,
  ),
  plain(
    'office, English: may not write to them',
    'bounced: policy or authentication',
    'postmaster@harbourworks.example',
    'Undeliverable: Wind notes: four days of south-west',
    `Your message wasn't delivered to anyone because there's a restriction.

${reader}
You do not have permission to send to this recipient. For assistance, contact your system administrator.
#550 5.7.1 RESOLVER.RST.AuthRequired; authentication required ##rfc822;${reader}`,
  ),
  plain(
    'office, English: late',
    'delayed: busy',
    'postmaster@harbourworks.example',
    'Delivery delayed: Wind notes: four days of south-west',
    `Delivery is delayed to these recipients or groups:

${reader}

Subject: Wind notes: four days of south-west

This message hasn't been delivered yet. Delivery will continue to be attempted.
The server will keep trying to deliver this message for the next 1 days, 19 hours and 57 minutes. You'll be notified if the message can't be delivered by that time.`,
  ),
  written(
    'office, German',
    'bounced: no such address',
    'postmaster@hafenwerk.example',
    'Unzustellbar: Wind notes: four days of south-west',
    `Fehler bei der Nachrichtenzustellung an folgende Empfänger oder Verteilerlisten:

${reader}
Die eingegebene E-Mail-Adresse wurde nicht gefunden. Überprüfen Sie die E-Mail-Adresse des Empfängers, und versuchen Sie, die Nachricht erneut zu senden.`,
  ),
  written(
    'office, German: full',
    'bounced: mailbox full',
    'postmaster@hafenwerk.example',
    'Unzustellbar: Wind notes: four days of south-west',
    `Fehler bei der Nachrichtenzustellung an folgende Empfänger oder Verteilerlisten:

${reader}
Das Postfach des Empfängers ist voll und kann zurzeit keine Nachrichten annehmen.`,
  ),
  written(
    'a German provider: unknown mailbox',
    'bounced: no such address',
    'Mailer Daemon <mailer-daemon@brieftaube.example>',
    'Mail konnte nicht zugestellt werden',
    `Ihre E-Mail konnte nicht zugestellt werden, weil der Empfänger bei uns unbekannt ist:

${reader}

Bitte prüfen Sie die Schreibweise der Adresse.`,
  ),
  written(
    'a German provider: late',
    'delayed: busy',
    'Mailer Daemon <mailer-daemon@brieftaube.example>',
    'Ihre Nachricht ist noch nicht zugestellt',
    `Ihre Nachricht an ${reader} konnte seit 4 Stunden nicht zugestellt werden. Die Zustellung wird weiter versucht; Sie müssen nichts tun.`,
  ),
  written(
    'a German provider: spam',
    'bounced: content refused',
    'Mailer Daemon <mailer-daemon@brieftaube.example>',
    'Unzustellbare Nachricht',
    `Die Nachricht an ${reader} wurde als Spam eingestuft und nicht angenommen.`,
  ),
  written(
    'office, French',
    'bounced: no such address',
    'postmaster@quaiouest.example',
    'Non remis : Wind notes: four days of south-west',
    `Échec de la remise à ces destinataires ou groupes :

${reader}
L’adresse de messagerie que vous avez entrée est introuvable. Vérifiez l’adresse du destinataire et réessayez.`,
  ),
  written(
    'office, French: full',
    'bounced: mailbox full',
    'postmaster@quaiouest.example',
    'Non remis : Wind notes: four days of south-west',
    `Échec de la remise à ces destinataires :

${reader}
La boîte aux lettres du destinataire est pleine et n’accepte aucun message pour le moment.`,
  ),
  written(
    'a French provider: unknown',
    'bounced: no such address',
    'MAILER-DAEMON@plumefine.example',
    'Message non distribué',
    `Votre message n'a pas pu être distribué à ${reader} : utilisateur inconnu.`,
  ),
  written(
    'office, Spanish',
    'bounced: no such address',
    'postmaster@muellenorte.example',
    'No se puede entregar: Wind notes: four days of south-west',
    `Error de entrega a estos destinatarios o grupos:

${reader}
No se encontró la dirección de correo electrónico que ha especificado. Compruebe la dirección del destinatario.`,
  ),
  written(
    'office, Spanish: full',
    'bounced: mailbox full',
    'postmaster@muellenorte.example',
    'No se puede entregar: Wind notes: four days of south-west',
    `Error de entrega a estos destinatarios:

${reader}
El buzón del destinatario está lleno y no puede aceptar mensajes en este momento.`,
  ),
  written(
    'a Spanish provider: unknown',
    'bounced: no such address',
    'MAILER-DAEMON@correoazul.example',
    'Correo devuelto',
    `Su mensaje para ${reader} no pudo ser entregado: el usuario no existe.`,
  ),
  written(
    'office, Japanese',
    'bounced: no such address',
    'postmaster@minatomachi.example',
    '配信不能: Wind notes: four days of south-west',
    `次の受信者またはグループへの配信に失敗しました:

${reader}
入力した電子メール アドレスが見つかりませんでした。受信者の電子メール アドレスを確認してください。`,
  ),
  written(
    'office, Japanese: full',
    'bounced: mailbox full',
    'postmaster@minatomachi.example',
    '配信不能: Wind notes: four days of south-west',
    `次の受信者への配信に失敗しました:

${reader}
受信者のメールボックスがいっぱいで、現在メッセージを受け取ることができません。`,
  ),
  written(
    'a Japanese provider: unknown',
    'bounced: no such address',
    'MAILER-DAEMON@fudebako.example',
    'メールを配信できませんでした',
    `${reader} 宛のメールは、宛先のユーザーが存在しないため配信できませんでした。`,
  ),
  {
    name: 'a gateway, with the answer in a paragraph of its own',
    right: 'bounced: policy or authentication',
    raw: parts(
      'multipart/mixed',
      {
        From: 'Mail Gateway <postmaster@gate.harbourworks.example>',
        Subject: 'Mail could not be delivered',
      },
      [
        'text/plain',
        `Your mail to ${reader} was not accepted.\n\n550 Sender verify failed: SPF check of galewright.example did not pass`,
      ],
      ['message/rfc822', returned],
    ),
  },
  {
    name: 'a home-made script',
    right: 'bounced: no such address',
    raw: message({ From: '<>', Subject: 'bounce' }, `Recipient ${reader} is unknown here.`),
  },
  {
    name: 'an empty return path, and words that nobody knows',
    right: 'bounced: unknown',
    raw: message(
      { 'Return-Path': '<>', From: 'MAILER-DAEMON@oldmill.example', Subject: 'Returned mail' },
      `Your mail could not be delivered. It is returned to you below.\n\n${returned}`,
    ),
  },
]
