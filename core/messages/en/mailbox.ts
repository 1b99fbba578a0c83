import { messages } from '../messages.ts'

export const mailboxPlace = messages({
  mailbox: 'Mailbox',
  aStandInOnThisMachine:
    'A stand-in on this machine: mails to any address end here, and none leaves.',
  nothingHasArrivedYetLink:
    'Nothing has arrived yet. Link an e-mail to a detection on the Bench, and run a clip as live.',
  toArrived: (to: string) => `to ${to} · arrived`,
  picture: (pictures: number) => `${pictures} picture`,
  message: 'Message',
  fromTo: (from: string, to: string) => `From ${from} to ${to}`,
  theMomentOfTheTrigger: 'The moment of the trigger',
  kb: (name: string, value: number) => `${name}, ${value} KB`,
  chooseAMessage: 'Choose a message.'
})
