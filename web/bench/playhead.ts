import { useSyncExternalStore } from 'react'
import { frameAt, frameTime } from '../../core/targets/tracks.ts'

/**
 * The moment on show, and the video that follows it. Kept outside React's state: while it plays, only what shows the
 * moment is drawn again.
 */
export class Playhead {
  time = 0
  playing = false
  /** The range that is played again and again, seconds; null: none. */
  loop: readonly [from: number, to: number] | null = null
  private video: HTMLVideoElement | null = null
  private fps = 10
  private seconds = 0
  private callback = 0
  private readonly listeners = new Set<() => void>()

  /** A clip of so many seconds; the moment is kept where it fits. */
  setClip(seconds: number, fps: number): void {
    this.fps = fps
    this.seconds = seconds
    this.loop = null
    this.seek(Math.min(this.time, this.lastTime()))
  }

  attach(video: HTMLVideoElement | null): void {
    this.video = video
    this.playing = false
    if (!video) return
    video.onloadeddata = () => this.seek(this.time)
    video.onended = () => {
      // A loop up to the very end of the clip ends before its last frame is passed.
      if (!this.loop) return this.setPlaying(false)
      this.seek(this.loop[0])
      void video.play().catch(() => this.setPlaying(false))
    }
    video.onpause = () => !video.ended && this.setPlaying(false)
    video.onplay = () => {
      this.setPlaying(true)
      this.follow()
    }
  }

  seek(time: number): void {
    this.time = Math.max(0, Math.min(time, this.lastTime()))
    // The middle of the frame, so that rounding shows the frame itself and not the one before.
    if (this.video) this.video.currentTime = this.time + 0.4 / this.fps
    this.tell()
  }

  /** Plays a range again and again; null: to the end, once. */
  setLoop(loop: readonly [from: number, to: number] | null): void {
    this.loop = loop
    if (loop && (this.time < loop[0] || this.time >= loop[1])) this.seek(loop[0])
    else this.tell()
  }

  /** To the frame before or after. */
  step(frames: number): void {
    this.pause()
    this.seek(frameTime(Math.max(1, frameAt(this.time, this.fps) + frames), this.fps))
  }

  toggle(): void {
    if (this.playing) return this.pause()
    if (
      this.loop
        ? this.time < this.loop[0] || this.time >= this.loop[1]
        : this.time >= this.lastTime()
    )
      this.seek(this.loop?.[0] ?? 0)
    if (this.video) void this.video.play().catch(() => this.setPlaying(false))
    else this.run()
  }

  /** Without a video the moments pass by the clock. */
  private run(): void {
    if (this.seconds === 0) return
    this.setPlaying(true)
    let last = performance.now()
    const pass = (now: number): void => {
      if (!this.playing || this.video) return
      this.time = Math.min(this.lastTime(), this.time + (now - last) / 1000)
      last = now
      if (this.loop && this.time >= this.loop[1]) this.time = this.loop[0]
      else if (this.time >= this.lastTime()) this.playing = false
      this.tell()
      requestAnimationFrame(pass)
    }
    requestAnimationFrame(pass)
  }

  pause(): void {
    this.video?.pause()
    this.setPlaying(false)
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  private lastTime(): number {
    return Math.max(0, this.seconds - 1 / this.fps)
  }

  private setPlaying(playing: boolean): void {
    if (this.playing === playing) return
    this.playing = playing
    this.tell()
  }

  /** While it plays, the moment is that of the picture the browser shows. */
  private follow(): void {
    const { video } = this
    if (!video) return
    video.cancelVideoFrameCallback(this.callback)
    this.callback = video.requestVideoFrameCallback((_, { mediaTime }) => {
      if (!this.playing) return
      if (this.loop && mediaTime >= this.loop[1]) this.seek(this.loop[0])
      else this.time = Math.min(mediaTime, this.lastTime())
      this.tell()
      this.follow()
    })
  }

  private tell(): void {
    for (const listener of this.listeners) listener()
  }
}

/** The frame on show; changes only when the frame does. */
export const useFrame = (playhead: Playhead, fps: number): number =>
  useSyncExternalStore(playhead.subscribe, () => frameAt(playhead.time, fps))
export const useTime = (playhead: Playhead): number =>
  useSyncExternalStore(playhead.subscribe, () => playhead.time)
export const usePlaying = (playhead: Playhead): boolean =>
  useSyncExternalStore(playhead.subscribe, () => playhead.playing)

export const useLoop = (playhead: Playhead): Playhead['loop'] =>
  useSyncExternalStore(playhead.subscribe, () => playhead.loop)
