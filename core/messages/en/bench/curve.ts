import { messages } from '../../messages.ts'

export const curvePanel = messages({
  measuredCurve: 'Measured curve',
  limit: (value: number, unit: string) => `limit ${value}${unit === '%' ? '' : ' '}${unit}`
})
