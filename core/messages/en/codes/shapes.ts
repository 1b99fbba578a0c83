import { messages } from '../../messages.ts'

/** Shapes that are drawn, and why one cannot be as it is. */
export const shapes = messages({
  line: 'line',
  zone: 'zone',
  ignore: 'ignore area',
  refused: (shape: string, fault: string) => `The ${shape} ${fault}. It was left unchanged.`,
  notCopied: (shape: string, fault: string) => `Not copied: in that picture the ${shape} ${fault}.`
})
