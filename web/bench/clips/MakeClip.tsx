import { problemWords } from '../../../core/messages/errorWords.ts'
import { common, units } from '../../../core/messages/en/common.ts'
import { makeClip as msg, weathers } from '../../../core/messages/en/bench/clips.ts'
import './clips.css'
import { WEATHERS } from '../../../core/formats/weather.ts'
import { DeleteOutlined, PlusOutlined } from '@ant-design/icons'
import { Alert, Button, Checkbox, Input, InputNumber, Modal, Select, Slider } from 'antd'
import { useMemo, useState, type ReactNode } from 'react'
import type { ClipView } from '../../../core/api.ts'
import { actorNames, faultNames, lightNames } from '../../scene/walkWords.ts'
import {
  ACTOR_KINDS,
  FAULT_KINDS,
  type FaultKind,
  LIGHTS,
  readScene,
  readScript,
  type Script,
  type ScriptActor
} from '../../../simulation/script.ts'
import { request } from '../../api/client.ts'
import { ScenePreview } from '../../scene/ScenePreview.tsx'

export interface MakeClipProps {
  open: boolean
  camera: string
  world: { scene: unknown; scripts: unknown[] }
  onClose: () => void
  onMade: (clip: ClipView) => void
}

/** Who has a face that may wear a mask. */
const faced: ReadonlySet<string> = new Set(['adult', 'child', 'crouching', 'group'])
/** Makes a clip from a script of the camera's simulated scene: who goes where, when, in what weather. */
export function MakeClip({ open, camera, world, onClose, onMade }: MakeClipProps): ReactNode {
  return (
    <Modal
      open={open}
      title={msg.makeClip}
      footer={null}
      onCancel={onClose}
      width={1080}
      centered
      destroyOnHidden
    >
      {open && <Maker camera={camera} world={world} onClose={onClose} onMade={onMade} />}
    </Modal>
  )
}

function Maker({ camera, world, onClose, onMade }: Omit<MakeClipProps, 'open'>): ReactNode {
  const scene = useMemo(() => readScene(world.scene), [world])
  const scripts = useMemo(() => world.scripts.map(readScript), [world])
  const [script, setScript] = useState<Script>(scripts[0]!)
  const [actor, setActor] = useState<number | null>(null)
  const [time, setTime] = useState(5)
  const [error, setError] = useState<string | null>(null)
  const [sending, setSending] = useState(false)
  const change = (part: Partial<Script>): void => setScript((old) => ({ ...old, ...part }))
  const changeActor = (index: number, part: Partial<ScriptActor>): void =>
    change({ actors: script.actors.map((a, i) => (i === index ? { ...a, ...part } : a)) })

  const make = async (): Promise<void> => {
    setSending(true)
    try {
      readScript(script)
      onMade(
        await request<ClipView>('POST', `/cameras/${encodeURIComponent(camera)}/made-clips`, {
          name: script.name,
          script
        })
      )
      onClose()
    } catch (problem) {
      setError(problemWords(problem))
    } finally {
      setSending(false)
    }
  }
  const addActor = (): void => {
    change({
      actors: [
        ...script.actors,
        {
          kind: 'adult',
          from: Math.min(2, script.seconds - 1),
          way: [
            [-4, 12],
            [4, 12]
          ],
          members: 3,
          mask: false
        }
      ]
    })
    setActor(script.actors.length)
  }
  const [fault] = script.faults
  return (
    <div className="maker">
      <div className="maker-picture">
        <ScenePreview
          scene={scene}
          script={script}
          time={time}
          actor={actor}
          onWay={(way) => actor !== null && changeActor(actor, { way })}
        />
        <div className="row">
          <span className="figures">{msg.s(time.toFixed(1))}</span>
          <Slider
            className="grow"
            ariaLabelForHandle={msg.momentOfThePreview}
            min={0}
            max={script.seconds}
            step={0.1}
            value={time}
            onChange={setTime}
            tooltip={{ open: false }}
          />
        </div>
        <p className="quiet">{actor === null ? msg.selectSomeoneToSee : common.extendPath}</p>
      </div>
      <div className="maker-form">
        <label className="field">
          <span>{msg.startFrom}</span>
          <Select
            value={script.id}
            options={scripts.map((s) => ({ value: s.id, label: s.name }))}
            onChange={(id) => {
              setScript(scripts.find((s) => s.id === id)!)
              setActor(null)
            }}
          />
        </label>
        <div className="maker-two">
          <label className="field">
            <span>{common.name}</span>
            <Input
              value={script.name}
              maxLength={120}
              onChange={(e) => change({ name: e.target.value })}
            />
          </label>
          <label className="field">
            <span>{msg.length}</span>
            <InputNumber
              min={5}
              max={600}
              suffix={units.s}
              value={script.seconds}
              onChange={(seconds) => seconds && change({ seconds })}
            />
          </label>
        </div>
        <div className="maker-two">
          <label className="field">
            <span>{msg.light}</span>
            <Select
              value={script.light}
              options={LIGHTS.map((value) => ({ value, label: lightNames[value] }))}
              onChange={(light) => change({ light })}
            />
          </label>
          <label className="field">
            <span>{msg.fault}</span>
            <Select<FaultKind | ''>
              value={fault?.kind ?? ''}
              options={[
                { value: '', label: common.none },
                ...FAULT_KINDS.map((value) => ({ value, label: faultNames[value] }))
              ]}
              onChange={(kind) =>
                change({
                  faults: kind
                    ? [
                        {
                          kind: kind,
                          from: fault?.from ?? Math.round(script.seconds / 3),
                          ...(fault?.to && { to: fault.to })
                        }
                      ]
                    : []
                })
              }
            />
          </label>
        </div>
        {fault && (
          <label className="row">
            <span>{msg.from}</span>
            <InputNumber
              size="small"
              min={0}
              max={script.seconds}
              suffix={units.s}
              value={fault.from}
              onChange={(from) => from !== null && change({ faults: [{ ...fault, from }] })}
              aria-label={msg.faultBegins}
            />
            <span>{msg.to}</span>
            <InputNumber
              size="small"
              min={0}
              max={script.seconds}
              suffix={units.s}
              value={fault.to ?? script.seconds}
              onChange={(to) => to !== null && change({ faults: [{ ...fault, to }] })}
              aria-label={msg.faultEnds}
            />
          </label>
        )}
        <div className="maker-weather">
          {WEATHERS.map((key) => (
            <label key={key}>
              <span>{weathers[key]}</span>
              <Slider
                ariaLabelForHandle={weathers[key]}
                min={0}
                max={1}
                step={0.05}
                value={script.weather[key]}
                onChange={(v) => change({ weather: { ...script.weather, [key]: v } })}
                tooltip={{ open: false }}
              />
            </label>
          ))}
        </div>
        <h3>{msg.targets}</h3>
        <ul className="maker-actors">
          {script.actors.map((a, i) => (
            <li key={i} className={i === actor ? 'chosen' : ''} onPointerDown={() => setActor(i)}>
              <Select
                size="small"
                aria-label={msg.target(i + 1)}
                value={a.kind}
                options={ACTOR_KINDS.map((value) => ({ value, label: actorNames[value] }))}
                onChange={(kind) => changeActor(i, { kind })}
                onFocus={() => setActor(i)}
              />
              <InputNumber
                size="small"
                aria-label={msg.targetStartsAt(i + 1)}
                prefix={msg.at}
                suffix={units.s}
                min={0}
                max={script.seconds}
                value={a.from}
                onChange={(from) => from !== null && changeActor(i, { from })}
              />
              {faced.has(a.kind) ? (
                <Checkbox
                  checked={a.mask}
                  onChange={(e) => changeActor(i, { mask: e.target.checked })}
                >
                  {msg.mask}
                </Checkbox>
              ) : (
                <span />
              )}
              <Button
                size="small"
                type="text"
                icon={<DeleteOutlined aria-hidden />}
                aria-label={msg.removeTarget(i + 1)}
                onClick={() => {
                  change({ actors: script.actors.filter((_, k) => k !== i) })
                  setActor(null)
                }}
              />
            </li>
          ))}
        </ul>
        <Button size="small" icon={<PlusOutlined aria-hidden />} onClick={addActor}>
          {msg.addTarget}
        </Button>
        {error && <Alert type="error" title={error} />}
        <div className="row maker-foot">
          <Button onClick={onClose}>{common.cancel}</Button>
          <Button type="primary" loading={sending} onClick={() => void make()}>
            {msg.makeClip}
          </Button>
        </div>
      </div>
    </div>
  )
}
