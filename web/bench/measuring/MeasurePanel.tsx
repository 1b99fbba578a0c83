import { common, units } from '../../../core/messages/en/common.ts'
import { measurePanel as msg } from '../../../core/messages/en/bench/measuring.ts'
import './measuring.css'
import '../bench.css'
import { CloseOutlined, DeleteOutlined } from '@ant-design/icons'
import { Button, InputNumber, Radio, Switch } from 'antd'
import type { ReactNode } from 'react'
import { USUAL_LENS } from './draft.ts'
import { FAR_OFF } from './MeasuringLayer.tsx'
import type { MeasuringTool } from './useMeasuring.ts'

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
    <aside className="inspector measure-panel" aria-label={msg.calibrate}>
      <header>
        <h2>{msg.calibrate}</h2>
        <Button
          type="text"
          size="small"
          icon={<CloseOutlined aria-hidden />}
          aria-label={msg.closeCalibration}
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
          { value: 'people', label: msg.fromPeople },
          { value: 'rectangle', label: msg.fromARectangle }
        ]}
      />
      {draft.from === 'people' ? <People tool={tool} /> : <Rectangle tool={tool} />}
      <section className="measure-result" aria-live="polite">
        {measured ? (
          <>
            <dl>
              <div>
                <dt>{msg.cameraHeight}</dt>
                <dd>
                  <span className="figures">{msg.m(measured.pose.height.toFixed(2))}</span>{' '}
                  {give(measured.uncertainty.height, 2, ' m')}
                </dd>
              </div>
              <div>
                <dt>{msg.tilt}</dt>
                <dd>
                  <span className="figures">{measured.pose.tilt.toFixed(1)}°</span>{' '}
                  {give(measured.uncertainty.tilt, 1, '°')}
                </dd>
              </div>
              <div>
                <dt>{msg.verticalView}</dt>
                <dd>
                  <span className="figures">{measured.pose.fieldOfView.toFixed(1)}°</span>{' '}
                  {give(measured.uncertainty.fieldOfView, 1, '°')}
                </dd>
              </div>
            </dl>
            <p className="quiet">{msg.marksLieOfThe((measured.error * 100).toFixed(2))}</p>
          </>
        ) : (
          <>
            <p className="off-note">{fault}.</p>
            {draft.from === 'people' && draft.people.length >= 2 && draft.fieldOfView === null && (
              <Button size="small" onClick={() => change({ ...draft, fieldOfView: USUAL_LENS })}>
                {msg.useATypicalLens(USUAL_LENS)}
              </Button>
            )}
          </>
        )}
      </section>
      <label className="row">
        <span>{msg.bandsOfPixelDensity}</span>
        <Switch size="small" checked={bands} disabled={!measured} onChange={setBands} />
      </label>
      <div className="row">
        <Button type="primary" disabled={!measured} onClick={tool.keep}>
          {msg.saveCalibration}
        </Button>
        <Button onClick={tool.leave}>{common.cancel}</Button>
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
        {msg.byKeyboardArrowsAnd(Boolean(draft.foot))} <kbd>{common.space}</kbd>;{' '}
        <kbd>{msg.backspace}</kbd> {msg.removesOne}
      </p>
      {fromClip && (
        <Button size="small" onClick={fromClip}>
          {msg.takeThePeopleOfThis}
        </Button>
      )}
      <ol className="measure-people" aria-label={msg.peopleMarked}>
        {draft.people.map((person, i) => (
          <li key={i}>
            <span>{i + 1}</span>
            <InputNumber
              size="small"
              aria-label={msg.heightOfPerson(i + 1)}
              min={0.5}
              max={2.5}
              step={0.01}
              suffix={units.m}
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
              {off[i] != null && msg.m2(off[i] >= 0 ? '+' : '−', Math.abs(off[i]).toFixed(2))}
            </span>
            <Button
              type="text"
              size="small"
              icon={<DeleteOutlined aria-hidden />}
              aria-label={msg.removePerson(i + 1)}
              onClick={() => change({ ...draft, people: draft.people.filter((_, k) => k !== i) })}
            />
          </li>
        ))}
      </ol>
      {draft.people.some((p) => p.fromBox) && <p className="quiet">{msg.foundByTheAnalysisEach}</p>}
      <label className="row">
        <span>{msg.lensIfKnown}</span>
        <InputNumber
          size="small"
          min={1}
          max={170}
          suffix={msg.vertical}
          placeholder={msg.unknown}
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
      <p className="quiet">{msg.clickTheFourCornersOf}</p>
      <div className="row">
        <label className="field">
          <span>{msg.firstSide}</span>
          <InputNumber
            min={0.1}
            max={1000}
            step={0.1}
            suffix={units.m}
            value={draft.width}
            onChange={(width) => width !== null && change({ ...draft, width })}
          />
        </label>
        <label className="field">
          <span>{msg.nextSide}</span>
          <InputNumber
            min={0.1}
            max={1000}
            step={0.1}
            suffix={units.m}
            value={draft.depth}
            onChange={(depth) => depth !== null && change({ ...draft, depth })}
          />
        </label>
      </div>
      {draft.corners.length > 0 && (
        <Button size="small" onClick={() => change({ ...draft, corners: [] })}>
          {msg.clearCorners}
        </Button>
      )}
    </>
  )
}
