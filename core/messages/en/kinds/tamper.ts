import { messages } from '../../messages.ts'

export const words = messages({
  coveredDarkWashedOut: 'covered, dark, washed out, out of focus or moved',
  tamper: 'Tamper',
  tamperAt: 'Tamper, ',
  for: (causes: string, time: string) => `: ${causes} for ${time}`,
  cameraHealth: 'Camera health'
})

export const editors = messages({
  darkView:
    'A dark or uniform view makes tamper detection unreliable. Leave out causes the view can’t show.',
  movesLimits: 'Moves the limits of all causes. The curves show how close the clip comes to them.',
  stationAccepts: 'A monitoring station may only accept alarms above a certain severity.'
})

export const sentence = messages({
  cameraIs: '{name}: camera {causes} for {delay}, {sensitivity}, severity {severity}',
  causes: 'Causes',
  howLong: 'How long it must last. A truck that stops in front of the camera is gone by then.'
})
