import { messages } from '../../messages.ts'

export const words = messages({
  videoLoss: 'Video loss',
  noPicture: 'Video loss, ',
  for: (time: string) => `: for ${time}`
})

export const sentence = messages({
  noNewPicture: '{name}: no new picture for {delay}',
  howLong: 'How long no new picture may arrive.'
})
