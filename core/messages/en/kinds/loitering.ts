import { messages } from '../../messages.ts'

export const words = messages({
  lingersIn: 'lingers in',
  loitering: 'Loitering',
  somebodyLingersAlsoWithShort: 'somebody lingers, also with short absences'
})

export const graceEditor = messages({
  gracetime: 'GraceTime',
  grace: 'Grace',
  whoIsOutOfThe: 'Who is out of the zone for no longer than this is still lingering.',
  changeTheGrace: 'Change the grace'
})

export const sentence = messages({
  awayFor: ', away for',
  grace: 'Grace',
  atMost: (graceSeconds: string) => `at most ${graceSeconds}`
})
