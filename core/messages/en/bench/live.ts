import { messages } from '../../messages.ts'

export const heardLive = messages({
  heardLive: 'Heard live',
  whatItsDeviceSaysBy: 'What its device says, by the settings that were sent to it:',
  nothingHeardYetWhatIts:
    'Nothing heard yet. What its device sets off, by the settings that were sent to it, is shown here as it comes. Choose a clip to try what is drawn.'
})

export const livePicture = messages({
  livePicture: 'Live picture'
})
