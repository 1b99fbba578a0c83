import { messages } from '../messages.ts'

/** Finding anything of the site from the top bar. */
export const findDialog = messages({
  search: 'Search (Ctrl+K)',
  title: 'Search the site',
  placeholder: 'Camera, detection, device, person, schedule, alarm…',
  results: 'Results',
  nothing: (typed: string) => `Nothing is called “${typed}”.`,
  kinds: {
    place: 'Place',
    command: 'Command',
    camera: 'Camera',
    detection: 'Detection',
    device: 'Device',
    action: 'Action',
    schedule: 'Schedule',
    person: 'Person',
    alarm: 'Alarm'
  },
  commands: {
    findDevices: 'Find devices',
    runChecks: 'Run checks',
    walk: 'Start a walk test',
    isItArmed: 'Is it armed?',
    makeRecord: 'Make a handover record',
    allAlarms: 'Search alarms'
  },
  alarmAt: (name: string, when: string) => `${name}, ${when}`,
  comments: (words: string) => `Alarms with “${words}” in a comment`,
  help: 'Arrow keys select, Enter opens, Esc closes'
})
