import { messages } from '../messages.ts'

export const quickFix = messages({
  theRunWasStoppedAfter: (done: number, asked: number) =>
    `the run was stopped after ${done} of ${asked} checks`,
  not: (name: string, what: string, error: string) => `${name} not ${what}: ${error}`
})

export const findings = messages({
  done: (words: string) => `${words}: done`,
  theDevice: 'The device'
})

export const readinessStrip = messages({
  somethingLeft: 'something left',
  nothingYet: 'nothing yet',
  drawn: 'Drawn',
  armed: 'Armed',
  linked: 'Linked',
  sent: 'Sent',
  proven: 'Proven'
})
