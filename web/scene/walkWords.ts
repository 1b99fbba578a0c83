import { walkWords as msg } from '../../core/messages/en/scene.ts'
import type { FaultKind, Light, WalkActor } from '../../core/formats/walk.ts'

/** Who walks and what happens meanwhile, in words. */
export const faultNames: Record<FaultKind, string> = {
  covered: msg.lensCovered,
  sprayed: msg.lensSprayed,
  defocused: msg.outOfFocus,
  knocked: msg.knockedAside,
  lightsOut: msg.lightsOut,
  washedOut: msg.dazzled,
  cableCut: msg.cableCut,
  frozen: msg.pictureFrozen
}
export const actorNames: Record<WalkActor['kind'], string> = {
  adult: msg.adult,
  child: msg.child,
  crouching: msg.crouchingPerson,
  group: msg.group,
  dog: msg.dog,
  gull: msg.gull,
  car: msg.car,
  van: msg.van,
  bicycle: msg.cyclist
}
export const lightNames: Record<Light, string> = {
  day: msg.day,
  dusk: msg.dusk,
  night: msg.nightLamps,
  infrared: msg.nightByInfraRed
}
