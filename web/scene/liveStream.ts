import { liveTile as msg } from '../../core/messages/en/scene.ts'
import { saidOfField } from '../../core/messages/errorWords.ts'
import { WatchReader, type WatchHead } from '../../core/watch/frames.ts'
import type { LiveFrame } from '../../core/devices/views.ts'
import { addressOf, errorOf } from '../api/client.ts'

/** What is live of a camera now. */
export interface Live {
  picture: ImageBitmap | null
  targets: LiveFrame['targets']
  /** Why there is no picture. */
  trouble: string | null
  /** When the last picture came, by this machine's clock. */
  at: number
}

const none: Live = { picture: null, targets: [], trouble: null, at: 0 }
const AGAIN_MS = 2000

const ALL = '/watch/stream'

/** Where the server has the pictures of some cameras. */
export const streamOf = (cameras: readonly string[]): string =>
  `${ALL}?cameras=${cameras.map(encodeURIComponent).join()}`

/** All live pictures over one connection, begun again when it breaks; each camera's viewers hear of their own only. */
export class WatchStream {
  private readonly live = new Map<string, Live>()
  private readonly listeners = new Map<string, Set<() => void>>()
  private readonly decoding = new Set<string>()
  private readonly address: string

  /** @param address of all cameras, of some (`streamOf`), or a phone's own */
  constructor(address = ALL) {
    this.address = address
  }

  get = (camera: string): Live => this.live.get(camera) ?? none

  subscribe(camera: string, listener: () => void): () => void {
    const own = this.listeners.get(camera) ?? new Set()
    this.listeners.set(camera, own.add(listener))
    return () => void own.delete(listener)
  }

  /** @returns what ends it */
  run(): () => void {
    const ended = new AbortController()
    void this.read(ended.signal)
    return () => {
      ended.abort()
      for (const { picture } of this.live.values()) picture?.close()
      this.live.clear()
    }
  }

  private async read(ended: AbortSignal): Promise<void> {
    while (!ended.aborted) {
      try {
        const answer = await fetch(addressOf(this.address), { signal: ended })
        if (!answer.ok || !answer.body) throw errorOf(answer.status, await answer.text())
        // A decoding that the cut took with it never ends; it must not keep the next ones out.
        this.decoding.clear()
        const reader = new WatchReader()
        const body = answer.body.getReader()
        for (let part = await body.read(); !part.done; part = await body.read())
          for (const { head, picture } of reader.push(part.value)) this.take(head, picture)
      } catch {
        // Said below, for each camera that is looked at.
      }
      if (ended.aborted) return
      for (const camera of this.listeners.keys())
        this.set(camera, { trouble: msg.notConnected, targets: [] })
      await new Promise((resolve) => setTimeout(resolve, AGAIN_MS))
    }
  }

  private take(head: WatchHead, jpeg: Uint8Array): void {
    const { camera } = head
    if (head.what === 'trouble')
      return this.set(camera, { trouble: saidOfField(head.why), targets: [] })
    if (head.what === 'targets') return this.set(camera, { targets: head.targets })
    // While one is being decoded, the next ones are passed over: the newest counts.
    if (this.decoding.has(camera)) return
    this.decoding.add(camera)
    createImageBitmap(new Blob([jpeg as BlobPart], { type: 'image/jpeg' })).then(
      (picture) => {
        this.decoding.delete(camera)
        this.get(camera).picture?.close()
        this.set(camera, { picture, trouble: null, at: Date.now() })
      },
      () => this.decoding.delete(camera)
    )
  }

  private set(camera: string, change: Partial<Live>): void {
    this.live.set(camera, { ...this.get(camera), ...change })
    for (const listener of this.listeners.get(camera) ?? []) listener()
  }
}
