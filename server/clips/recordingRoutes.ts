import { RecordSchema } from '../../core/api.ts'
import { said } from '../../core/messages/said.ts'
import { INSTALLER, allow, byCamera, type Api } from '../api/route.ts'
import type { Database } from '../database.ts'
import type { Devices } from '../devices/service.ts'
import { conflict } from '../errors.ts'
import { readCamera } from '../sites/queries.ts'
import type { ClipRecorder } from './recorder.ts'

/** Recording a clip from a camera's live picture. */
export function recordingRoutes(
  app: Api,
  database: Database,
  devices: Devices,
  recorder: ClipRecorder
): void {
  app.get('/cameras/:camera/recordings', allow(INSTALLER, { params: byCamera }), ({ params }) => ({
    recording: recorder.of(params.camera)
  }))
  app.post(
    '/cameras/:camera/recordings',
    allow(INSTALLER, { params: byCamera, body: RecordSchema }),
    async ({ params, body }, reply) => {
      await readCamera(database, params.camera)
      const shown = await devices.channelShowing(params.camera)
      if (!shown) throw conflict(said('devices.noDeviceShowsThisCamera'))
      return reply.status(201).send(recorder.start(params.camera, body.name, body.seconds, shown))
    }
  )
  app.delete('/cameras/:camera/recordings', allow(INSTALLER, { params: byCamera }), ({ params }) =>
    recorder.stop(params.camera)
  )
}
