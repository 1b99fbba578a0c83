import { messages } from '../../messages.ts'

export const lanes = messages({
  target: (target: number) => `target ${target}`,
  triggerOfAt: (name: string, t: string, time: string) => `Trigger of ${name}, ${t}, at ${time} s`,
  s: (time: string, t: string) => `${time} s, ${t}`,
  triggerTriggers: (triggers: number) => `${triggers} ${triggers === 1 ? 'trigger' : 'triggers'}`,
  notArmedHere: 'Not armed here',
  switchedOff: 'Switched off',
  targetIsTimedHereOf: (id: number, from: string, from2: string) =>
    `Target ${id} is timed here: ${from} of ${from2} s`,
  nearMissOfTargetAt: (target: number, time: string) =>
    `Near miss of target ${target} at ${time} s`,
  toS: (cls: string, id: number, from: string, to: string) => `${cls} ${id}, ${from} to ${to} s`
})

export const timeline = messages({
  timeline: 'Timeline',
  showALongerStretch: 'Zoom out',
  showAShorterStretch: 'Zoom in',
  wholeClip: 'whole clip',
  noTargetsWereFoundIn: 'No targets in this clip.',
  playedAgainAndAgainClick: 'Looping; click to stop',
  loopFromToSEnd: (loop: string, loop2: string) => `Looping ${loop} to ${loop2} s; click to stop`
})

export const transport = messages({
  oneFrameBack: 'Previous frame',
  pause: 'Pause',
  play: 'Play',
  oneFrameOn: 'Next frame',
  momentOnShow: 'Current moment'
})
