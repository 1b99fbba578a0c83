/**
 * A Kalman filter of one coordinate with constant velocity: state (position, velocity), driven by white acceleration.
 * Source: Bar-Shalom et al., *Estimation with Applications to Tracking and Navigation*, 6.3 (from memory).
 */
export class Kalman {
  value: number
  velocity = 0
  private pxx: number
  private pxv = 0
  private pvv: number
  private readonly acceleration: number

  /**
   * @param value the first measurement
   * @param noise standard deviation of a measurement
   * @param speed standard deviation of the unknown first velocity, per second
   * @param acceleration standard deviation of the acceleration, per second squared
   */
  constructor(value: number, noise: number, speed: number, acceleration: number) {
    this.value = value
    this.pxx = noise * noise
    this.pvv = speed * speed
    this.acceleration = acceleration
  }

  /** Moves the state `dt` seconds on. */
  predict(dt: number): void {
    const q = this.acceleration * this.acceleration
    this.value += this.velocity * dt
    this.pxx += dt * (2 * this.pxv + dt * this.pvv) + (q * dt ** 4) / 4
    this.pxv += dt * this.pvv + (q * dt ** 3) / 2
    this.pvv += q * dt * dt
  }

  /** Takes in a measurement with the given standard deviation. */
  correct(measured: number, noise: number): void {
    const s = this.pxx + noise * noise
    const kx = this.pxx / s
    const kv = this.pxv / s
    const error = measured - this.value
    this.value += kx * error
    this.velocity += kv * error
    this.pvv -= kv * this.pxv
    this.pxv -= kx * this.pxv
    this.pxx -= kx * this.pxx
  }
}
