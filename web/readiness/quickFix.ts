import { wordsOf } from '../../core/messages/words.ts'
import { quickFix as msg } from '../../core/messages/en/readiness.ts'
import type { FixView } from '../../core/api.ts'
import type { DeviceView, SendingView } from '../../core/devices/views.ts'
import type { ProofRunView, ProvingView } from '../../core/proving/views.ts'
import { findingKey, type Finding, type QuickFix } from '../../core/readiness/index.ts'
import { request } from '../api/client.ts'

/** What takes a fix back; null: it was a command to a device, which stands. */
export type TakeBack = (() => Promise<unknown>) | null

/** Does what a finding proposes, on the server. @throws ApiError */
export async function applyFix(finding: Finding, fix: QuickFix): Promise<TakeBack> {
  switch (fix.does) {
    case 'edit':
    case 'add':
    case 'actions':
    case 'endpoint':
    case 'door': {
      // The server applies it to the newest state; the browser only names it.
      const { undo } = await request<FixView>('POST', '/readiness/fixes', {
        finding: findingKey(finding),
        which: finding.fix === fix ? 'fix' : 'orElse'
      })
      return () => request(undo.method, undo.path, undo.body)
    }
    case 'send':
      await sent((await request<SendingView>('POST', '/sendings', { devices: fix.devices })).id)
      return null
    case 'mode': {
      const before = (await request<DeviceView>('GET', `/devices/${fix.device}`)).channels
        .find(({ token }) => token === fix.channel)
        ?.modes.find(({ running }) => running)
      const path = `/devices/${fix.device}/channels/${fix.channel}/mode`
      await request('PUT', path, { type: fix.type })
      return before ? () => request('PUT', path, { type: before.type }) : null
    }
    case 'test':
      await request('POST', `/endpoints/${fix.endpoint}/test`)
      return null
    case 'clock':
      await request('PUT', `/devices/${fix.device}/clock`, {})
      return null
    case 'prove': {
      const { checks } = await request<ProvingView>('GET', '/proving')
      const own = checks
        .filter(
          (c) =>
            c.camera === fix.camera &&
            c.check.detection === fix.detection &&
            c.check.by.how !== 'person'
        )
        .map(({ camera, check }) => ({ camera, check: check.id }))
      const { id } = await request<ProofRunView>('POST', '/proving/runs', { checks: own })
      for (;;) {
        const run = await request<ProofRunView>('GET', `/proving/runs/${id}`)
        if (run.state === 'finished') return null
        if (run.state === 'stopped') throw new Error(msg.theRunWasStoppedAfter(run.done, run.asked))
        await new Promise((resolve) => setTimeout(resolve, 300))
      }
    }
    case 'go':
      return null
  }
}

/** Waits until a sending has ended. @throws Error with what the device refused */
async function sent(id: string): Promise<void> {
  for (;;) {
    const view = await request<SendingView>('GET', `/sendings/${id}`)
    const failed = view.devices.flatMap(({ name, error, results }) => [
      ...(error === null ? [] : [`${name}: ${wordsOf(error)}`]),
      ...results.flatMap((r) =>
        r.error === null ? [] : msg.not(wordsOf(r.name), r.what, wordsOf(r.error))
      )
    ])
    if (view.finished && failed.length) throw new Error(failed.join('; '))
    if (view.finished) return
    await new Promise((resolve) => setTimeout(resolve, 200))
  }
}
