/** What a pop-up sounds like: made here, so that nothing has to be loaded. */
const tones = {
  none: [],
  chime: [
    [660, 0, 0.18],
    [880, 0.16, 0.3]
  ],
  alarm: [
    [760, 0, 0.22],
    [560, 0.22, 0.22],
    [760, 0.44, 0.22],
    [560, 0.66, 0.22]
  ]
} as const

let context: AudioContext | null = null

/** Plays it; a browser that does not allow sound yet stays silent. */
export function playSound(sound: keyof typeof tones): void {
  try {
    context ??= new AudioContext()
    void context.resume()
    for (const [hertz, from, seconds] of tones[sound]) {
      const [tone, gain] = [context.createOscillator(), context.createGain()]
      const at = context.currentTime + from
      tone.frequency.value = hertz
      gain.gain.setValueAtTime(0.0001, at)
      gain.gain.exponentialRampToValueAtTime(0.2, at + 0.02)
      gain.gain.exponentialRampToValueAtTime(0.0001, at + seconds)
      tone.connect(gain).connect(context.destination)
      tone.start(at)
      tone.stop(at + seconds)
    }
  } catch {
    // No sound on this machine.
  }
}
