import { messages } from '../../messages.ts'

export const words = messages({
  lingersIn: 'lingers in',
  loitering: 'Loitering',
  aTargetLingersShort: 'a target lingers, short absences included'
})

export const graceEditor = messages({
  graceTime: 'Grace time',
  aTargetThatIs: 'A target that is outside for no longer than this is still lingering.'
})

export const sentence = messages({
  graceTime: 'Grace time',
  outsideAtMost: (time: string) => `outside for at most ${time}`
})
