import { messages } from '../../messages.ts'

export const words = messages({
  coveredDarkWashedOutOut: 'covered, dark, washed out, out of focus or moved',
  tamper: 'Tamper',
  for: (d: string, delaySeconds: string) => `: ${d} for ${delaySeconds}`,
  cameraCare: 'Camera care'
})

export const editors = messages({
  movesTheLimitsOfAll:
    'Moves the limits of all causes. The curves show how near the clip comes to them.',
  changeTheCauses: 'Change the causes',
  aDarkEvenBackgroundOr:
    'A dark even background or low light makes tamper unreliable; leave out what the view cannot tell.',
  changeTheSeverity: 'Change the severity',
  aMonitoringStationMayAccept: 'A monitoring station may accept only from some step up.'
})

export const sentence = messages({
  theCameraIs: ': the camera is',
  causes: 'Causes',
  at: ', at',
  sensitivity2: (sensitivity: number) => `sensitivity ${sensitivity}`,
  howLongACauseMust:
    'How long a cause must hold. A truck that stops in front of the camera is gone by then.',
  whichIs: ', which is',
  severity: 'Severity'
})
