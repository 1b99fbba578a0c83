import { messages } from '../../messages.ts'

export const heardLive = messages({
  liveEvents: 'Live events',
  eventsFromItsDevice: 'Events from its device, with the settings on the device:',
  noEventsYetTriggers:
    'No events yet. Triggers of the device appear here. Record or add a clip to test detections.'
})

export const livePicture = messages({
  livePicture: 'Live picture',
  noPicture: 'No live picture. Retrying…'
})

export const useLive = messages({
  noDevice: 'No device shows this camera now. Check its state under Devices.',
  theCameraDoesNot: 'The camera does not answer. Retrying…'
})
