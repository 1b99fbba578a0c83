import { messages } from '../../messages.ts'

export const words = messages({
  signalLoss: 'Signal loss',
  noPicture: 'No picture, ',
  for: (delaySeconds: string) => `: for ${delaySeconds}`,
  pictureLost: 'Picture lost'
})

export const sentence = messages({
  noNewPictureFor: ': no new picture for',
  howLongNoNewPicture: 'How long no new picture may come.'
})
