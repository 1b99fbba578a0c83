import type { FaultKind, Light, WalkActor } from '../../core/formats/walk.ts'

/** Who walks and what happens meanwhile, in words. */
export const faultNames: Record<FaultKind, string> = {
  covered: 'Lens covered',
  sprayed: 'Lens sprayed',
  defocused: 'Out of focus',
  knocked: 'Knocked aside',
  lightsOut: 'Lights out',
  washedOut: 'Dazzled',
  cableCut: 'Cable cut',
  frozen: 'Picture frozen'
}
export const actorNames: Record<WalkActor['kind'], string> = {
  adult: 'Adult',
  child: 'Child',
  crouching: 'Crouching person',
  group: 'Group',
  dog: 'Dog',
  gull: 'Gull',
  car: 'Car',
  van: 'Van',
  bicycle: 'Cyclist'
}
export const lightNames: Record<Light, string> = {
  day: 'Day',
  dusk: 'Dusk',
  night: 'Night, by lamplight',
  infrared: 'Night, by infra-red'
}
