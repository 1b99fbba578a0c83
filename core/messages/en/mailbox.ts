import { byteSize, count } from '../format.ts'
import { messages } from '../messages.ts'

export const mailboxPlace = messages({
  mailbox: 'Mailbox',
  aStandInOnThisMachine:
    'A simulator on this machine. E-mails to any address arrive here; none leaves.',
  noMessagesYetLink: 'No messages yet. Link an e-mail to a detection and replay a clip as live.',
  toArrived: (to: string, at: string) => `to ${to} · ${at}`,
  picture: (pictures: number) => count(pictures, 'picture'),
  message: 'Message',
  fromTo: (from: string, to: string) => `From ${from} to ${to}`,
  theMomentOfTheTrigger: 'Picture of the trigger',
  fileOf: (name: string, bytes: number) => `${name}, ${byteSize(bytes)}`,
  selectAMessage: 'Select a message.'
})
