import { messages } from '../messages.ts'

export const quickFix = messages({
  theRunWasStoppedAfter: (done: number, asked: number) =>
    `the run was stopped after ${done} of ${asked} checks`,
  not: (name: string, what: string, error: string) => `${name} not ${what}: ${error}`
})

export const findings = messages({
  blocking: 'blocking',
  warning: 'warning',
  hint: 'hint',
  done: (words: string) => `${words}: done`,
  theDevice: 'The device'
})

export const readinessStrip = messages({
  done: 'done',
  blocked: 'blocked',
  notFinished: 'not finished',
  notStarted: 'not started',
  drawn: 'Drawn',
  scheduled: 'Scheduled',
  linked: 'Linked',
  onDevice: 'On device',
  proven: 'Proven'
})
