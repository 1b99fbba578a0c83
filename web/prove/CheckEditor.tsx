import { wordsOf } from '../../core/messages/words.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { weathers as weatherNames } from '../../core/messages/en/bench/clips.ts'
import { common, units } from '../../core/messages/en/common.ts'
import { checkEditor as msg } from '../../core/messages/en/prove/prove.ts'
import { WEATHERS } from '../../core/formats/weather.ts'
import { DeleteOutlined, PlusOutlined } from '@ant-design/icons'
import { Alert, Button, Checkbox, Input, InputNumber, Segmented, Select, Slider } from 'antd'
import { useState, type ReactNode } from 'react'
import type { SiteActionsView } from '../../core/api.ts'
import { ABOUT, CheckSchema, type Check } from '../../core/formats/check.ts'
import { type Detection } from '../../core/formats/plan.ts'
import {
  ACTOR_KINDS,
  FAULT_KINDS,
  type FaultKind,
  USUAL_ACTORS,
  type Walk,
  type WalkActor
} from '../../core/formats/walk.ts'
import type { SavedCheck } from '../../core/proving/views.ts'
import type { Scene } from '../../simulation/script.ts'
import { request } from '../api/client.ts'
import { actorNames, faultNames } from '../scene/walkWords.ts'
import { CheckStage } from './CheckStage.tsx'
import { useBench } from '../api/queries.ts'
import { lengthOfCheck, lengthOfClip, startWith, type How } from './newCheck.ts'
import { useRefresh } from './useProving.ts'
import { aboutNames, byWords } from './words.ts'
import { parseWith } from '../../core/schema/parse.ts'
import { MomentPicker } from '../words/MomentPicker.tsx'

interface Props {
  kept: SavedCheck
  scene: Scene | null
  painted: boolean
  site: SiteActionsView
  detection: Detection
  onDone: () => void
}

/** A check as somebody wants it: who walks where, when, in what weather; what is expected. */
export function CheckEditor({ kept, scene, painted, site, detection, onDone }: Props): ReactNode {
  const [check, setCheck] = useState<Check>(kept.check)
  const [actor, setActor] = useState<number | null>(
    kept.check.by.how === 'walk' && kept.check.by.walk.actors.length ? 0 : null
  )
  const [time, setTime] = useState(2)
  const [error, setError] = useState<string | null>(null)
  const refresh = useRefresh()
  const { timeZone } = site.site
  const change = (part: Partial<Check>): void => setCheck((old) => ({ ...old, ...part }))
  const walk = check.by.how === 'walk' ? check.by.walk : null
  const changeWalk = (part: Partial<Walk>): void =>
    setCheck((old) =>
      old.by.how === 'walk' ? { ...old, by: { ...old.by, walk: { ...old.by.walk, ...part } } } : old
    )
  const changeActor = (index: number, part: Partial<WalkActor>): void => {
    if (walk)
      changeWalk({ actors: walk.actors.map((a, i) => (i === index ? { ...a, ...part } : a)) })
  }
  const chosen = walk && actor !== null ? (walk.actors.at(actor) ?? null) : null
  const { expect } = check
  const length = lengthOfCheck(check)
  const clips = useBench(kept.camera).data?.clips.filter(({ state }) => state === 'ready') ?? []
  const { by } = check
  const clip = by.how === 'clip' ? clips.find(({ id }) => id === by.clip) : undefined
  const ways: How[] = [
    ...(scene ? (['walk'] as const) : []),
    ...(clips.length || by.how === 'clip' ? (['clip'] as const) : []),
    'person'
  ]
  /** What it takes is given another length; a trigger is expected within it. */
  const make = (next: Check['by'], at = check.at): void =>
    change({
      by: next,
      at,
      ...(expect.what === 'trigger' && {
        expect: { ...expect, from: 0, to: lengthOfCheck({ by: next }) }
      })
    })
  const makeBy = (how: How): void => {
    const [first = null] = clips
    make(startWith(how, first), how === 'clip' && first ? first.start : check.at)
    setActor(how === 'walk' ? 0 : null)
  }
  const save = async (): Promise<void> => {
    try {
      parseWith(CheckSchema, check)
      await request('PUT', `/cameras/${kept.camera}/checks/${check.id}`, {
        check,
        version: kept.version
      })
      await refresh()
      onDone()
    } catch (problem) {
      setError(problemWords(problem))
    }
  }
  return (
    <div className="check-panel check-editor">
      <label className="field">
        <span className="field-name">{common.name}</span>
        <Input
          value={wordsOf(check.name)}
          maxLength={80}
          onChange={(e) => change({ name: e.target.value })}
        />
      </label>
      {ways.length > 1 && (
        <Segmented<How>
          aria-label={msg.how}
          size="small"
          value={by.how}
          options={ways.map((value) => ({ value, label: byWords[value] }))}
          onChange={makeBy}
        />
      )}
      {by.how === 'clip' && (
        <>
          <label className="field">
            <span className="field-name">{msg.clip}</span>
            <Select
              aria-label={msg.clip}
              value={by.clip}
              options={clips.map(({ id, name }) => ({ value: id, label: name }))}
              onChange={(id) => {
                const other = clips.find((c) => c.id === id)
                if (other) make(startWith('clip', other), other.start)
              }}
            />
          </label>
          <div className="two-fields">
            {(['from', 'to'] as const).map((end) => (
              <label key={end} className="field">
                <span className="field-name">{end === 'from' ? msg.clipFrom : msg.clipTo}</span>
                <InputNumber
                  value={by[end]}
                  min={0}
                  max={clip ? lengthOfClip(clip) : 7200}
                  step={0.5}
                  suffix={units.s}
                  onChange={(value) => value !== null && make({ ...by, [end]: value })}
                />
              </label>
            ))}
          </div>
        </>
      )}
      {walk && scene && (
        <>
          <CheckStage
            scene={scene}
            walk={walk}
            detection={detection}
            time={Math.min(time, walk.seconds)}
            actor={actor}
            onWay={(way) => actor !== null && changeActor(actor, { way })}
          />
          <Slider
            ariaLabelForHandle={msg.momentOfTheWalk}
            min={0}
            max={walk.seconds}
            step={0.1}
            value={Math.min(time, walk.seconds)}
            onChange={setTime}
            tooltip={{ open: false }}
          />
          <p className="quiet field-help">
            {chosen ? common.extendPath : msg.selectSomeoneToChange}
          </p>
          <div className="row">
            {walk.actors.map((a, i) => (
              <Button
                key={i}
                size="small"
                type={actor === i ? 'primary' : 'default'}
                onClick={() => setActor(i)}
              >
                {i + 1} {actorNames[a.kind]}
              </Button>
            ))}
            <Button
              size="small"
              icon={<PlusOutlined aria-hidden />}
              aria-label={msg.addTarget}
              onClick={() => {
                changeWalk({
                  actors: [
                    ...walk.actors,
                    {
                      kind: 'adult',
                      from: 0,
                      members: 3,
                      mask: false,
                      way: [
                        [-4, 10],
                        [4, 10]
                      ]
                    }
                  ]
                })
                setActor(walk.actors.length)
              }}
            />
          </div>
          {chosen && actor !== null && (
            <div className="two-fields">
              <label className="field">
                <span className="field-name">{common.who}</span>
                <Select
                  value={chosen.kind}
                  options={ACTOR_KINDS.map((value) => ({ value, label: actorNames[value] }))}
                  onChange={(kind) => changeActor(actor, { kind })}
                />
              </label>
              <label className="field">
                <span className="field-name">{msg.startsAfter}</span>
                <InputNumber
                  value={chosen.from}
                  min={0}
                  max={walk.seconds}
                  step={0.5}
                  suffix={units.s}
                  onChange={(from) => changeActor(actor, { from: from ?? 0 })}
                />
              </label>
              <label className="field">
                <span className="field-name">{msg.speed}</span>
                <InputNumber
                  value={
                    chosen.speed ??
                    USUAL_ACTORS[chosen.kind === 'group' ? 'adult' : chosen.kind].speed
                  }
                  min={0.05}
                  max={40}
                  step={0.1}
                  suffix={units.metresPerSecond}
                  onChange={(speed) => changeActor(actor, { speed: speed ?? undefined })}
                />
              </label>
              <label className="field">
                <span className="field-name">{msg.height}</span>
                <InputNumber
                  value={
                    chosen.tall ??
                    USUAL_ACTORS[chosen.kind === 'group' ? 'adult' : chosen.kind].tall
                  }
                  min={0.2}
                  max={4}
                  step={0.05}
                  suffix={units.m}
                  onChange={(tall) => changeActor(actor, { tall: tall ?? undefined })}
                />
              </label>
              <Checkbox
                checked={chosen.mask}
                onChange={(e) => changeActor(actor, { mask: e.target.checked })}
              >
                {msg.wearsAMask}
              </Checkbox>
              <Button
                size="small"
                type="text"
                icon={<DeleteOutlined aria-hidden />}
                onClick={() => {
                  changeWalk({ actors: walk.actors.filter((_, i) => i !== actor) })
                  setActor(null)
                }}
              >
                {common.remove}
              </Button>
            </div>
          )}
          <div className="two-fields">
            <label className="field">
              <span className="field-name">{msg.length}</span>
              <InputNumber
                value={walk.seconds}
                min={1}
                max={600}
                suffix={units.s}
                onChange={(seconds) => seconds && changeWalk({ seconds })}
              />
            </label>
            <label className="field">
              <span className="field-name">{msg.fault}</span>
              <Select<FaultKind | ''>
                value={walk.faults[0]?.kind ?? ''}
                options={[
                  { value: '', label: common.none },
                  ...FAULT_KINDS.map((value) => ({ value, label: faultNames[value] }))
                ]}
                onChange={(kind) => changeWalk({ faults: kind ? [{ kind: kind, from: 3 }] : [] })}
              />
            </label>
          </div>
          {painted && (
            <label className="field">
              <span className="field-name">{msg.runWith}</span>
              <Segmented<'truth' | 'pictures'>
                aria-label={msg.runWith}
                size="small"
                value={check.by.how === 'walk' ? check.by.through : 'truth'}
                options={[
                  { value: 'truth', label: msg.exactPositions },
                  { value: 'pictures', label: msg.renderedPictures }
                ]}
                onChange={(through) =>
                  check.by.how === 'walk' && change({ by: { ...check.by, through } })
                }
              />
            </label>
          )}
          {painted &&
            WEATHERS.map((w) => (
              <label key={w} className="weather">
                <span>{weatherNames[w]}</span>
                <Slider
                  min={0}
                  max={1}
                  step={0.1}
                  value={walk.weather[w]}
                  ariaLabelForHandle={weatherNames[w]}
                  onChange={(value) => changeWalk({ weather: { ...walk.weather, [w]: value } })}
                />
              </label>
            ))}
        </>
      )}
      {check.by.how === 'person' && (
        <label className="field">
          <span className="field-name">{msg.whatToDoOnSite}</span>
          <Input.TextArea
            value={check.by.words}
            maxLength={400}
            rows={1}
            className="grows"
            onChange={(e) =>
              check.by.how === 'person' && change({ by: { ...check.by, words: e.target.value } })
            }
          />
        </label>
      )}
      <div className="field" hidden={by.how === 'clip'}>
        <span className="field-name">{msg.siteTime}</span>
        <MomentPicker
          label={msg.siteTime}
          value={check.at}
          timeZone={timeZone}
          required
          onChange={(at) => at !== null && change({ at })}
        />
      </div>
      <div className="two-fields">
        <label className="field">
          <span className="field-name">{msg.condition}</span>
          <Select
            value={check.about}
            options={ABOUT.map((value) => ({ value, label: aboutNames[value] }))}
            onChange={(about) => change({ about })}
          />
        </label>
        <label className="field">
          <span className="field-name">{common.expected}</span>
          <Select
            value={expect.what}
            options={[
              { value: 'trigger', label: msg.aTrigger },
              { value: 'silence', label: common.mustNotTrigger }
            ]}
            onChange={(what) =>
              change(
                what === 'silence'
                  ? { expect: { what }, side: 'outside', effects: [] }
                  : { expect: { what, from: 0, to: length }, side: 'inside' }
              )
            }
          />
        </label>
        {expect.what === 'trigger' && (
          <>
            <label className="field">
              <span className="field-name">{msg.notBefore}</span>
              <InputNumber
                value={expect.from}
                min={0}
                max={7200}
                step={0.5}
                suffix={units.s}
                onChange={(from) => change({ expect: { ...expect, from: from ?? 0 } })}
              />
            </label>
            <label className="field">
              <span className="field-name">{msg.notAfter}</span>
              <InputNumber
                value={expect.to}
                min={0}
                max={7200}
                step={0.5}
                suffix={units.s}
                onChange={(to) => change({ expect: { ...expect, to: to ?? 0 } })}
              />
            </label>
          </>
        )}
      </div>
      {error && <Alert type="error" title={error} />}
      <div className="row">
        <Button type="primary" size="small" onClick={() => void save()}>
          {common.save}
        </Button>
        <Button size="small" onClick={onDone}>
          {common.cancel}
        </Button>
      </div>
    </div>
  )
}
