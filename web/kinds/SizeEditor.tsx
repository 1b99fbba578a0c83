import { common, units } from '../../core/messages/en/common.ts'
import { Rich } from '../words/Rich.tsx'
import { said } from '../../core/messages/said.ts'
import { sizeEditor as msg } from '../../core/messages/en/kinds/parts.ts'
import './kinds.css'
import { Button, InputNumber, Radio, Switch } from 'antd'
import { useMemo, type ReactNode } from 'react'
import type { TargetGated } from '../../core/formats/plan.ts'
import { fitSizes, type SeenSize } from '../../core/tuning/sizes.ts'
import { Later } from '../bench/Later.tsx'
import { DeviceNote } from '../bench/inspector/DeviceNote.tsx'
import type { EditorProps } from './editors.tsx'
import { lazyPart } from '../lazyPart.tsx'

const SizesChart = lazyPart(() => import('./SizesChart.tsx'), 'SizesChart')

type Size = NonNullable<TargetGated['size']>
type FrameSide = 'w' | 'h'
const starts = { min: { w: 0.01, h: 0.03 }, max: { w: 0.25, h: 0.6 } }

const tidy = (size: Size): Size | undefined => {
  const kept = Object.fromEntries(Object.entries(size).filter(([, v]) => v !== undefined)) as Size
  return Object.keys(kept).length ? kept : undefined
}

/** Which sizes count, beside how large the clip's targets are, near and far. */
export function SizeEditor({
  detection,
  document,
  sizes,
  measured
}: EditorProps<TargetGated> & { sizes: readonly SeenSize[] | null; measured: boolean }): ReactNode {
  const { size = {} } = detection
  const inMetres = size.minMetres !== undefined || size.maxMetres !== undefined
  const set = (next: Size, label = said('edits.sizeLimits')): void =>
    document.edit({ ...detection, size: tidy(next) }, label)
  const fit = useMemo(() => sizes && fitSizes(sizes, detection.classes), [sizes, detection.classes])
  const changeUnit = (metres: boolean): void =>
    set(
      metres
        ? { minMetres: fit?.metres?.min ?? 1.2, maxMetres: fit?.metres?.max ?? 2.2 }
        : fit
          ? { min: fit.min, max: fit.max }
          : starts,
      metres ? said('edits.sizeInMetres') : said('edits.sizeInFrames')
    )
  return (
    <>
      {measured && (
        <Radio.Group
          size="small"
          optionType="button"
          value={inMetres}
          options={[
            { value: false, label: msg.framesOnPicture },
            { value: true, label: msg.metres }
          ]}
          onChange={(e) => changeUnit(e.target.value as boolean)}
        />
      )}
      {inMetres ? <Metres size={size} set={set} /> : <Frames size={size} set={set} />}
      {sizes === null ? (
        <p className="quiet">{msg.selectAClipTo}</p>
      ) : sizes.length === 0 ? (
        <p className="quiet">{msg.noTargets}</p>
      ) : (
        <Later>
          <SizesChart sizes={sizes} detection={detection} inMetres={inMetres} />
        </Later>
      )}
      {sizes !== null &&
        (fit ? (
          <Button
            size="small"
            onClick={() =>
              set(
                inMetres && fit.metres
                  ? { minMetres: fit.metres.min, maxMetres: fit.metres.max }
                  : { min: fit.min, max: fit.max },
                said('edits.fitTheSizeFramesTo')
              )
            }
          >
            {msg.fitToClip(fit.targets)}
          </Button>
        ) : (
          <p className="quiet">{msg.noTargetOfThe}</p>
        ))}
      {!inMetres && (
        <p className="quiet">
          <Rich text={msg.targetsThatFitInto} parts={{ key: <kbd>F</kbd> }} />
        </p>
      )}
      {(size.min || size.max) && (
        <DeviceNote parameter={size.min ? 'MinimumSize' : 'MaximumSize'} value={0} />
      )}
    </>
  )
}

function Frames({ size, set }: { size: Size; set: (size: Size) => void }): ReactNode {
  const one = (which: 'min' | 'max', label: string): ReactNode => {
    const frame = size[which]
    const side = (key: FrameSide, name: string): ReactNode => (
      <InputNumber
        aria-label={`${label}, ${name}`}
        size="small"
        min={0.1}
        max={100}
        step={0.5}
        prefix={name}
        suffix="%"
        value={Math.round(frame![key] * 1000) / 10}
        onChange={(v) => v !== null && set({ ...size, [which]: { ...frame!, [key]: v / 100 } })}
      />
    )
    return (
      <div className="size-frame">
        <label className="row">
          <span>{label}</span>
          <Switch
            size="small"
            checked={!!frame}
            onChange={(on) => set({ ...size, [which]: on ? starts[which] : undefined })}
          />
        </label>
        {frame && (
          <div className="row">
            {side('w', common.width)}
            {side('h', common.height)}
          </div>
        )}
      </div>
    )
  }
  return (
    <>
      {one('min', msg.smallestTarget)}
      {one('max', msg.largestTarget)}
    </>
  )
}

function Metres({ size, set }: { size: Size; set: (size: Size) => void }): ReactNode {
  const one = (key: 'minMetres' | 'maxMetres', label: string): ReactNode => (
    <label className="field">
      <span>{label}</span>
      <InputNumber
        size="small"
        min={0}
        max={20}
        step={0.05}
        suffix={units.m}
        value={size[key] ?? null}
        onChange={(v) => set({ ...size, [key]: v ?? undefined })}
      />
    </label>
  )
  return (
    <div className="row">
      {one('minMetres', msg.minimumHeight)}
      {one('maxMetres', msg.maximumHeight)}
    </div>
  )
}
