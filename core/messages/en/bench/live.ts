import { messages } from '../../messages.ts'

export const heardLive = messages({
  heardLive: 'Live events',
  whatItsDeviceSaysBy: 'Events from its device, with the settings on the device:',
  nothingHeardYetWhatIts:
    'No events yet. Triggers of the device appear here. Select a clip to test what is drawn.'
})

export const livePicture = messages({
  livePicture: 'Live picture'
})

export const useLive = messages({
  noDevice: 'No device shows this camera now. Check its state under Devices.',
  notReachable: 'The camera does not answer. Retrying…'
})
