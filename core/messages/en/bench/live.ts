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
