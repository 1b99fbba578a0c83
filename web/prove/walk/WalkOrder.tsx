import { weatherNames } from '../../../core/messages/en/scene.ts'
import { common, units } from '../../../core/messages/en/common.ts'
import { walkOrder as msg } from '../../../core/messages/en/prove/walk.ts'
import { ORDERED, WEATHERS, type Weather } from '../../../core/formats/weather.ts'
import { Alert, InputNumber, Segmented, Select } from 'antd'
import type { ReactNode } from 'react'
import type { Check } from '../../../core/formats/check.ts'
import type { Detection } from '../../../core/formats/plan.ts'
import {
  ACTOR_KINDS,
  LIGHTS,
  USUAL_ACTORS,
  type Walk,
  type WalkActor
} from '../../../core/formats/walk.ts'
import type { Scene } from '../../../simulation/script.ts'
import { actorNames, lightNames } from '../../scene/walkWords.ts'
import { CheckStage } from '../CheckStage.tsx'
import { expectedWords } from '../words.ts'
import { MomentPicker } from '../../words/MomentPicker.tsx'

interface Props {
  check: Check
  scene: Scene | null
  detection: Detection
  timeZone: string
  disabled: boolean
  onChange: (check: Check) => void
}

const named = (weather: Weather): string | undefined =>
  ORDERED.find((known) => WEATHERS.every((kind) => known.weather[kind] === weather[kind]))?.name

/** Who walks where, at what time, in what weather; what is expected of it. */
export function WalkOrder({
  check,
  scene,
  detection,
  timeZone,
  disabled,
  onChange
}: Props): ReactNode {
  const { by, expect } = check
  const walk = by.how === 'walk' ? by.walk : null
  const [first] = walk?.actors ?? []
  const changeWalk = (part: Partial<Walk>): void => {
    if (by.how === 'walk') onChange({ ...check, by: { ...by, walk: { ...by.walk, ...part } } })
  }
  const changeFirst = (part: Partial<WalkActor>): void => {
    if (walk) changeWalk({ actors: walk.actors.map((a, i) => (i === 0 ? { ...a, ...part } : a)) })
  }
  return (
    <fieldset className="walk-order" disabled={disabled} aria-label={msg.walk}>
      {walk && scene && (
        <>
          <CheckStage
            scene={scene}
            walk={walk}
            detection={detection}
            time={Math.min(1, walk.seconds)}
            actor={first ? 0 : null}
            onWay={disabled ? undefined : (way) => changeFirst({ way })}
          />
          <p className="quiet field-help">{common.extendPath}</p>
          {first && (
            <div className="two-fields">
              <label className="field">
                <span className="field-name">{common.who}</span>
                <Select
                  disabled={disabled}
                  value={first.kind}
                  options={ACTOR_KINDS.map((value) => ({ value, label: actorNames[value] }))}
                  onChange={(kind) => changeFirst({ kind, speed: undefined, tall: undefined })}
                />
              </label>
              <label className="field">
                <span className="field-name">{msg.speed}</span>
                <InputNumber
                  disabled={disabled}
                  value={
                    first.speed ?? USUAL_ACTORS[first.kind === 'group' ? 'adult' : first.kind].speed
                  }
                  min={0.05}
                  max={40}
                  step={0.1}
                  suffix={units.metresPerSecond}
                  onChange={(speed) => changeFirst({ speed: speed ?? undefined })}
                />
              </label>
            </div>
          )}
          <div className="two-fields">
            <label className="field">
              <span className="field-name">{msg.light}</span>
              <Select
                disabled={disabled}
                value={walk.light}
                options={LIGHTS.map((value) => ({ value, label: lightNames[value] }))}
                onChange={(light) => changeWalk({ light })}
              />
            </label>
            <label className="field">
              <span className="field-name">{msg.weather}</span>
              <Select
                disabled={disabled}
                value={named(walk.weather) ?? 'own'}
                options={[
                  ...ORDERED.map(({ name }) => ({ value: name, label: weatherNames[name] })),
                  ...(named(walk.weather) ? [] : [{ value: 'own', label: msg.asInTheCheck }])
                ]}
                onChange={(value) => {
                  const chosen = ORDERED.find(({ name }) => name === value)
                  if (chosen) changeWalk({ weather: chosen.weather })
                }}
              />
            </label>
          </div>
          <div className="field">
            <span className="field-name">{msg.siteTime}</span>
            <MomentPicker
              label={msg.siteTime}
              value={check.at}
              timeZone={timeZone}
              required
              disabled={disabled}
              onChange={(at) => at !== null && onChange({ ...check, at })}
            />
          </div>
          <label className="field">
            <span className="field-name">{msg.duration}</span>
            <InputNumber
              disabled={disabled}
              value={walk.seconds}
              min={1}
              max={600}
              suffix={units.s}
              onChange={(seconds) => seconds && changeWalk({ seconds })}
            />
          </label>
        </>
      )}
      {walk && !scene && (
        <Alert
          type="info"
          showIcon={false}
          title={msg.theSceneOfThisCamera}
          description={msg.selectACheckFor}
        />
      )}
      {by.how === 'person' && (
        <>
          <p className="person-words">{by.words}</p>
          <label className="field">
            <span className="field-name">{msg.waitUpTo}</span>
            <InputNumber
              disabled={disabled}
              value={by.seconds}
              min={5}
              max={3600}
              suffix={units.s}
              onChange={(seconds) =>
                seconds &&
                onChange({
                  ...check,
                  by: { ...by, seconds },
                  expect: expect.what === 'trigger' ? { ...expect, to: seconds } : expect
                })
              }
            />
          </label>
        </>
      )}
      <div className="field">
        <span className="field-name">{common.expected}</span>
        <Segmented
          aria-label={common.expected}
          disabled={disabled}
          value={expect.what}
          options={[
            {
              value: 'trigger',
              label: expect.what === 'trigger' ? expectedWords(check) : msg.aTrigger
            },
            { value: 'silence', label: common.mustNotTrigger }
          ]}
          onChange={(what) =>
            onChange(
              what === 'silence'
                ? { ...check, expect: { what: 'silence' }, side: 'outside', effects: [] }
                : {
                    ...check,
                    expect: {
                      what: 'trigger',
                      from: 0,
                      to: walk?.seconds ?? (by.how === 'person' ? by.seconds : 60)
                    },
                    side: 'inside'
                  }
            )
          }
        />
      </div>
    </fieldset>
  )
}
