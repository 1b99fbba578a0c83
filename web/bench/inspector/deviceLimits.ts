import { deviceLimits as msg } from '../../../core/messages/en/bench/inspector.ts'
import { createContext, useContext, useMemo } from 'react'
import {
  fromScale,
  toScale,
  type Range,
  type RuleAbility
} from '../../../core/formats/onvif/rule.ts'
import type { Detection } from '../../../core/formats/plan.ts'
import { useDevices } from '../../devices/useDevices.ts'
import { ruleTypeOf } from '../../../core/kinds/rules.ts'

/** What the route to a camera can hold of the selected detection. */
export interface DeviceLimits {
  device: string
  /** Null: it has no rule of this kind. */
  ability: RuleAbility | null
}

export const DeviceLimitsContext = createContext<DeviceLimits | null>(null)

/**
 * The limits of the camera's route for a detection; null: no device of the camera is known, or
 * Wardoptic watches itself.
 */
export function useDeviceLimits(camera: string, detection: Detection | null): DeviceLimits | null {
  const { data } = useDevices()
  return useMemo(() => {
    const type = detection && ruleTypeOf(detection.kind)
    const device = data?.find(({ channels }) => channels.some((c) => c.camera === camera && c.used))
    const channel = device?.channels.find((c) => c.camera === camera && c.used)
    if (!type || !device || !channel?.abilities.length) return null
    return { device: device.name, ability: channel.abilities.find((a) => a.type === type) ?? null }
  }, [data, camera, detection])
}

/** What a device makes of a value, in words; null: nothing is known, or it holds the value as it is without a limit. */
export function deviceWords(
  { device, ability }: DeviceLimits,
  parameter: string,
  value: number,
  unit: string
): { words: string; holds: boolean } | null {
  if (!ability) return { words: msg.doesNotSupportThis(device), holds: false }
  if (!ability.parameters.includes(parameter))
    return { words: msg.doesNotSupportThisSetting(device), holds: false }
  const range = ability.ranges[parameter]
  if (!range) return null
  return parameter === 'Sensitivity'
    ? scaleWords(device, range, value)
    : rangeWords(device, range, value, unit)
}

function scaleWords(
  device: string,
  range: Range,
  value: number
): { words: string; holds: boolean } {
  const step = toScale(value, range)
  const back = fromScale(step, range)
  const same = Math.abs(back - value) < 1
  return {
    words: msg.stepOfTo(device, step, range.min, range.max, same, back),
    holds: same
  }
}

function rangeWords(
  device: string,
  { min, max }: Range,
  value: number,
  unit: string
): { words: string; holds: boolean } {
  const holds = value >= min && value <= max
  return {
    words: msg.to(device, min, max, unit, holds, Math.min(max, Math.max(min, value))),
    holds
  }
}

export const useLimits = (): DeviceLimits | null => useContext(DeviceLimitsContext)
