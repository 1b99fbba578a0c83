import { readFileSync } from 'node:fs'
import { request, type APIRequestContext } from '@playwright/test'
import type { BenchView } from '../core/api.ts'
import { signedInFile } from './servers.ts'
import { readPlan } from '../core/formats/plan.ts'

const demo = JSON.parse(readFileSync(new URL('../demo/plan.json', import.meta.url), 'utf8')) as {
  plan: unknown
  actions: Record<string, object>
  clips: { camera: string; name: string }[]
}
const plan = readPlan(JSON.stringify(demo.plan))

const answered = async (
  api: APIRequestContext,
  method: 'PUT' | 'DELETE',
  path: string,
  data?: object
): Promise<{ ok: boolean; body: unknown }> => {
  const answer = await api.fetch(path, { method, data })
  return { ok: answer.ok(), body: answer.status() === 204 ? null : await answer.json() }
}

/**
 * A camera as it is in the demo site, whatever a test has done to it: its detections as they were, no others, and without
 * clips that somebody added.
 */
export async function asDelivered(
  baseURL: string | undefined,
  ...cameras: string[]
): Promise<void> {
  const api = await request.newContext({ baseURL, storageState: signedInFile() })
  for (const camera of cameras) {
    const view = (await (await api.get(`/api/sites/skerrow/cameras/${camera}`)).json()) as BenchView
    const wanted = plan.cameras.find((c) => c.id === camera)!.detections
    for (const { detection, version } of view.detections)
      if (!wanted.some(({ id }) => id === detection.id))
        await answered(
          api,
          'DELETE',
          `/api/sites/skerrow/cameras/${camera}/detections/${detection.id}?version=${version}`
        )
    for (const [position, detection] of wanted.entries()) {
      const put = (version: number) =>
        answered(api, 'PUT', `/api/sites/skerrow/cameras/${camera}/detections/${detection.id}`, {
          detection,
          position,
          version
        })
      const first = await put(
        view.detections.find((kept) => kept.detection.id === detection.id)?.version ?? 0
      )
      // One that was deleted is brought back under the version of its deletion.
      if (!first.ok) await put((first.body as { current: { version: number } }).current.version)
    }
    for (const { detection, actions } of (
      (await (await api.get(`/api/sites/skerrow/cameras/${camera}`)).json()) as BenchView
    ).detections)
      await answered(
        api,
        'PUT',
        `/api/sites/skerrow/cameras/${camera}/detections/${detection.id}/actions`,
        {
          actions: demo.actions[detection.id] ?? {},
          version: actions.version
        }
      )
    const { ignore } = plan.cameras.find((c) => c.id === camera)!
    if (view.scene.marks || view.scene.ignore.length !== ignore.length)
      await answered(api, 'PUT', `/api/sites/skerrow/cameras/${camera}/scene`, {
        ignore,
        marks: null,
        version: view.scene.version
      })
    for (const clip of view.clips)
      if (!demo.clips.some(({ name }) => name === clip.name))
        await answered(api, 'DELETE', `/api/sites/skerrow/clips/${clip.id}`)
  }
  await api.dispose()
}
