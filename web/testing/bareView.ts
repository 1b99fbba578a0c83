import type { BenchView, SiteInput } from '../../core/api.ts'

/** A camera without anything, as the Bench is given it. */
export const bareView = (inputs: SiteInput[] = []): BenchView => ({
  site: {
    id: 's',
    name: 'S',
    timeZone: 'UTC',
    position: null,
    surroundings: 'outdoors',
    isSetUp: true,
    version: 1,
    changedAt: 0,
    inputs
  },
  camera: { id: 'c', name: 'C' },
  surroundings: 'outdoors',
  scene: { ignore: [], marks: null, version: 1, changedAt: 0 },
  detections: [],
  dormant: [],
  schedules: [],
  endpoints: [],
  world: null,
  live: false,
  clips: []
})
