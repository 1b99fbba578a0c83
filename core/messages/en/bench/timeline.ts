import { count } from '../../format.ts'
import { messages } from '../../messages.ts'

export const lanes = messages({
  target: (target: number) => `target ${target}`,
  triggerOfAt: (name: string, t: string, time: string) => `Trigger of ${name}, ${t}, at ${time}`,
  s: (time: string, t: string) => `${time}, ${t}`,
  triggerTriggers: (triggers: number) => `${count(triggers, 'trigger')}`,
  notArmedHere: 'Not armed here',
  switchedOff: 'Switched off',
  more: (targets: number) => `${count(targets, 'more target')}. Zoom in to see them.`,
  targetIsTimedHereOf: (id: number, from: string, from2: string) =>
    `Target ${id} is timed here: ${from} of ${from2} s`,
  nearMissOfTargetAt: (target: number, time: string) => `Near miss of target ${target} at ${time}`,
  toS: (cls: string, id: number, from: string, to: string) => `${cls} ${id}, ${from} to ${to}`
})

export const timeline = messages({
  timeline: 'Timeline',
  zoomOut: 'Zoom out',
  zoomIn: 'Zoom in',
  wholeClip: 'whole clip',
  wholeRange: 'whole range',
  noTargetsInRange: 'No targets in this range.',
  noTargetsInThis: 'No targets in this clip.',
  loopingClickToStop: 'Looping; click to stop',
  loopingToSClick: (loop: string, loop2: string) => `Looping ${loop} to ${loop2} s; click to stop`
})

export const transport = messages({
  previousFrame: 'Previous frame',
  pause: 'Pause',
  play: 'Play',
  nextFrame: 'Next frame',
  currentMoment: 'Current moment'
})
