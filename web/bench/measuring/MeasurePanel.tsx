import './measuring.css'
import '../bench.css'
import { CloseOutlined, DeleteOutlined } from '@ant-design/icons'
import { Button, InputNumber, Radio, Switch } from 'antd'
import { memo, type ReactNode } from 'react'
import { USUAL_LENS } from './draft.ts'
import { FAR_OFF } from './MeasuringLayer.tsx'
import type { MeasuringTool, SceneOnBench } from './useMeasuring.ts'

/** In the inspector's place while the scene is measured: the marks, what they tell, and how sure it is. */
export function MeasurePanel({
  tool,
  bands,
  setBands
}: {
  tool: MeasuringTool
  bands: boolean
  setBands: (on: boolean) => void
}): ReactNode {
  const { draft, measured, fault, change } = tool
  return (
    <aside className="inspector measure-panel" aria-label="Measuring the scene">
      <header>
        <h2>Measure the scene</h2>
        <Button
          type="text"
          size="small"
          icon={<CloseOutlined />}
          aria-label="Leave measuring"
          onClick={tool.leave}
        />
      </header>
      <Radio.Group
        optionType="button"
        size="small"
        value={draft.from}
        onChange={(e) =>
          change({ ...draft, from: e.target.value as typeof draft.from, foot: null })
        }
        options={[
          { value: 'people', label: 'From people' },
          { value: 'rectangle', label: 'From a rectangle' }
        ]}
      />
      {draft.from === 'people' ? <People tool={tool} /> : <Rectangle tool={tool} />}
      <section className="measure-result" aria-live="polite">
        {measured ? (
          <>
            <dl>
              <div>
                <dt>Camera hangs at</dt>
                <dd>
                  <span className="figures">{measured.pose.height.toFixed(2)} m</span>{' '}
                  {give(measured.uncertainty.height, 2, ' m')}
                </dd>
              </div>
              <div>
                <dt>looks down by</dt>
                <dd>
                  <span className="figures">{measured.pose.tilt.toFixed(1)}°</span>{' '}
                  {give(measured.uncertainty.tilt, 1, '°')}
                </dd>
              </div>
              <div>
                <dt>sees, up and down</dt>
                <dd>
                  <span className="figures">{measured.pose.fieldOfView.toFixed(1)}°</span>{' '}
                  {give(measured.uncertainty.fieldOfView, 1, '°')}
                </dd>
              </div>
            </dl>
            <p className="quiet">
              Marks lie {(measured.error * 100).toFixed(2)} % of the picture’s height from where
              this camera would see them. Drag the figure over the picture: it keeps its height.
            </p>
          </>
        ) : (
          <>
            <p className="off-note">{fault}.</p>
            {draft.from === 'people' && draft.people.length >= 2 && draft.fieldOfView === null && (
              <Button size="small" onClick={() => change({ ...draft, fieldOfView: USUAL_LENS })}>
                Take the lens as usual ({USUAL_LENS}° high)
              </Button>
            )}
          </>
        )}
      </section>
      <label className="row">
        <span>Bands of pixel density</span>
        <Switch size="small" checked={bands} disabled={!measured} onChange={setBands} />
      </label>
      <div className="row">
        <Button type="primary" disabled={!measured} onClick={tool.keep}>
          Keep this measurement
        </Button>
        <Button onClick={tool.leave}>Leave</Button>
      </div>
    </aside>
  )
}

const give = (error: number, digits: number, unit: string): string =>
  error > 0 && Number.isFinite(error) ? `± ${error.toFixed(digits)}${unit}` : ''

function People({ tool: { draft, change, off, fromClip } }: { tool: MeasuringTool }): ReactNode {
  return (
    <>
      <p className="quiet">
        {draft.foot
          ? 'Now the top of the same person’s head.'
          : 'Click where somebody stands, then the top of the head. Three people, nearer and farther away; two when the lens is known.'}{' '}
        By keyboard: arrows and <kbd>Space</kbd>; <kbd>Backspace</kbd> takes one back.
      </p>
      {fromClip && (
        <Button size="small" onClick={fromClip}>
          Take the people of this clip
        </Button>
      )}
      <ol className="measure-people" aria-label="People marked">
        {draft.people.map((person, i) => (
          <li key={i}>
            <span>{i + 1}</span>
            <InputNumber
              size="small"
              aria-label={`Height of person ${i + 1}`}
              min={0.5}
              max={2.5}
              step={0.01}
              suffix="m"
              value={person.metres}
              onChange={(metres) =>
                metres !== null &&
                change({
                  ...draft,
                  people: draft.people.map((p, k) => (k === i ? { ...p, metres } : p))
                })
              }
            />
            <span className={off[i] != null && Math.abs(off[i]) > FAR_OFF ? 'failed' : 'quiet'}>
              {off[i] != null && `${off[i] >= 0 ? '+' : '−'}${Math.abs(off[i]).toFixed(2)} m`}
            </span>
            <Button
              type="text"
              size="small"
              icon={<DeleteOutlined />}
              aria-label={`Remove person ${i + 1}`}
              onClick={() => change({ ...draft, people: draft.people.filter((_, k) => k !== i) })}
            />
          </li>
        ))}
      </ol>
      {draft.people.some((p) => p.fromBox) && (
        <p className="quiet">
          Found by the analysis, each taken to be 1.75 m tall. Their boxes cannot tell the lens: set
          it if you know it; heights hold all the same.
        </p>
      )}
      <label className="row">
        <span>Lens, if known</span>
        <InputNumber
          size="small"
          min={1}
          max={170}
          suffix="° high"
          placeholder="unknown"
          value={draft.fieldOfView}
          onChange={(fieldOfView) => change({ ...draft, fieldOfView })}
        />
      </label>
    </>
  )
}

function Rectangle({ tool: { draft, change } }: { tool: MeasuringTool }): ReactNode {
  return (
    <>
      <p className="quiet">
        Click the four corners of something square on the ground, in order around: a parking bay, a
        slab, a court. Say how long its first side and the next one are.
      </p>
      <div className="row">
        <label className="field">
          <span>First side</span>
          <InputNumber
            min={0.1}
            max={1000}
            step={0.1}
            suffix="m"
            value={draft.width}
            onChange={(width) => width !== null && change({ ...draft, width })}
          />
        </label>
        <label className="field">
          <span>Next side</span>
          <InputNumber
            min={0.1}
            max={1000}
            step={0.1}
            suffix="m"
            value={draft.depth}
            onChange={(depth) => depth !== null && change({ ...draft, depth })}
          />
        </label>
      </div>
      {draft.corners.length > 0 && (
        <Button size="small" onClick={() => change({ ...draft, corners: [] })}>
          Mark the corners again
        </Button>
      )}
    </>
  )
}

/** In the inspector while nothing is selected: whether the scene is measured, and what of it is shown. */
export const SceneNote = memo(function SceneNote({
  pose,
  open,
  grid,
  bands,
  setGrid,
  setBands,
  canMeasure
}: Pick<SceneOnBench, 'pose' | 'open' | 'grid' | 'bands' | 'setGrid' | 'setBands'> & {
  canMeasure: boolean
}): ReactNode {
  return (
    <section className="scene-note" aria-label="Scene">
      <h3>Scene</h3>
      {pose ? (
        <>
          <p>
            Measured: the camera hangs at {pose.height.toFixed(1)} m and looks down by{' '}
            {pose.tilt.toFixed(0)}°. Sizes can be in metres.
          </p>
          <label className="row">
            <span>Ground grid and figure</span>
            <Switch size="small" checked={grid} onChange={setGrid} />
          </label>
          <label className="row">
            <span>Bands of pixel density</span>
            <Switch size="small" checked={bands} onChange={setBands} />
          </label>
        </>
      ) : (
        <p className="quiet">
          Not measured yet. Three people of known height, or a rectangle on the ground, are enough
          for sizes in metres.
        </p>
      )}
      <Button size="small" disabled={!canMeasure} onClick={open}>
        {pose ? 'Measure it again' : 'Measure the scene'}
      </Button>
    </section>
  )
})
