import { analysisWords } from '../../../core/messages/analysisWords.ts'
import { lookBack as msg } from '../../../core/messages/en/bench/lookBack.ts'
import { problemWords } from '../../../core/messages/errorWords.ts'
import './lookBack.css'
import { Alert, Button } from 'antd'
import { useState, type ReactNode } from 'react'
import { useLookBackSettings } from '../../api/useLookBackSettings.ts'

/** Lets Wardoptic analyse the pictures of a camera of which nothing is kept, and says how that goes. */
export function AnalyseHere({ camera }: { camera: string }): ReactNode {
  const {
    view: { data },
    save
  } = useLookBackSettings()
  const [error, setError] = useState<string | null>(null)
  if (!data) return null
  const { lookBack, version, analyses } = data
  const own = analyses.find((one) => one.camera === camera)
  const analyse = (): Promise<void> =>
    save({ ...lookBack, analysed: [...lookBack.analysed, camera] }, version).then(
      () => setError(null),
      (problem: unknown) => setError(problemWords(problem))
    )
  return (
    <div className="analyse-here">
      {own ? (
        <span className="quiet">{msg.analysis(analysisWords(own))}</span>
      ) : (
        <Button size="small" onClick={() => void analyse()}>
          {msg.analyse}
        </Button>
      )}
      {error && <Alert type="error" title={error} />}
    </div>
  )
}
