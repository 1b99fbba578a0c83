import { messages } from '../../messages.ts'

export const heardLive = messages({
  liveEvents: 'Live events',
  bothSides: 'What its device reports with its own settings, and what would trigger as drawn:',
  target: (target: number) => `target ${target}`,
  both: '· device and drawing agree',
  drawnOnly: '· would trigger as drawn; the device did not',
  deviceOnly: (why: string) => `· only the device. As drawn: ${why}`,
  deviceOnlyUnknown: '· only the device',
  noEventsYetTriggers:
    'No events yet. Triggers of the device, and of what is drawn, appear here. Record or add a clip to test detections.'
})

export const livePicture = messages({
  livePicture: 'Live picture',
  noPicture: 'No live picture. Retrying…'
})

export const useLive = messages({
  noDevice: 'No device shows this camera now. Check its state under Devices.',
  theCameraDoesNot: 'The camera does not answer. Retrying…'
})
