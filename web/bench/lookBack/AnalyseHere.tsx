import { analysisWords } from '../../../core/messages/analysisWords.ts'
import { lookBack as msg } from '../../../core/messages/en/bench/lookBack.ts'
import { problemWords } from '../../../core/messages/errorWords.ts'
import './lookBack.css'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Alert, Button } from 'antd'
import { useState, type ReactNode } from 'react'
import type { LookBackSettingsView } from '../../../core/lookBack/settings.ts'
import { request } from '../../api/client.ts'

const PATH = '/settings/look-back'
const KEY = ['look-back-settings']
const AGAIN_MS = 3000

/** Lets Wardoptic analyse the pictures of a camera of which nothing is kept, and says how that goes. */
export function AnalyseHere({ camera }: { camera: string }): ReactNode {
  const queries = useQueryClient()
  const [error, setError] = useState<string | null>(null)
  const { data } = useQuery({
    queryKey: KEY,
    queryFn: () => request<LookBackSettingsView>('GET', PATH),
    refetchInterval: ({ state }) => (state.data?.analyses.length ? AGAIN_MS : false)
  })
  if (!data) return null
  const { lookBack, version, analyses } = data
  const own = analyses.find((one) => one.camera === camera)
  const analyse = async (): Promise<void> => {
    try {
      const body = {
        version,
        lookBack: { ...lookBack, analysed: [...lookBack.analysed, camera] }
      }
      queries.setQueryData(KEY, await request<LookBackSettingsView>('PUT', PATH, body))
      setError(null)
    } catch (problem) {
      setError(problemWords(problem))
      await queries.invalidateQueries({ queryKey: KEY })
    }
  }
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
