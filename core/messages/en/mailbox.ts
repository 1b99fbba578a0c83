import { messages } from '../messages.ts'

export const mailboxPlace = messages({
  mailbox: 'Mailbox',
  aStandInOnThisMachine:
    'A simulator on this machine. E-mails to any address arrive here; none leaves.',
  nothingHasArrivedYetLink:
    'No messages yet. Link an e-mail to a detection and replay a clip as live.',
  toArrived: (to: string, at: string) => `to ${to} · ${at}`,
  picture: (pictures: number) => `${pictures} picture`,
  message: 'Message',
  fromTo: (from: string, to: string) => `From ${from} to ${to}`,
  theMomentOfTheTrigger: 'Picture of the trigger',
  kb: (name: string, value: number) => `${name}, ${value} KB`,
  chooseAMessage: 'Select a message.'
})
