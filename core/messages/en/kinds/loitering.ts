import { messages } from '../../messages.ts'

export const words = messages({
  lingersIn: 'lingers in',
  loitering: 'Loitering',
  meaning: 'a target lingers, short absences included'
})

export const graceEditor = messages({
  graceTime: 'Grace time',
  help: 'A target that is outside for no longer than this is still lingering.'
})

export const sentence = messages({
  graceTime: 'Grace time',
  outsideAtMost: (time: string) => `outside for at most ${time}`
})
