import { measurePanel as msg } from '../../../core/messages/en/bench/measuring.ts'
import './measuring.css'
import '../bench.css'
import { Button, Switch } from 'antd'
import { memo, type ReactNode } from 'react'
import type { SceneOnBench } from './useMeasuring.ts'

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
    <section className="scene-note" aria-label={msg.scene}>
      <h3>{msg.scene}</h3>
      {pose ? (
        <>
          <p>{msg.calibratedCameraHeightM(pose.height.toFixed(1), pose.tilt.toFixed(0))}</p>
          <label className="row">
            <span>{msg.groundGridAndFigure}</span>
            <Switch size="small" checked={grid} onChange={setGrid} />
          </label>
          <label className="row">
            <span>{msg.bandsOfPixelDensity}</span>
            <Switch size="small" checked={bands} onChange={setBands} />
          </label>
        </>
      ) : (
        <p className="quiet">{msg.notMeasuredYetThreePeople}</p>
      )}
      <Button size="small" disabled={!canMeasure} onClick={open}>
        {pose ? msg.recalibrate : msg.calibrate}
      </Button>
    </section>
  )
})
