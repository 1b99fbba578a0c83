import { codeText } from '../../core/messages/said.ts'
import { wordsOf } from '../../core/messages/words.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { findings as msg } from '../../core/messages/en/readiness.ts'
import './readiness.css'
import { useQueryClient } from '@tanstack/react-query'
import { CloseCircleFilled, ExclamationCircleOutlined, InfoCircleOutlined } from '@ant-design/icons'
import { App, Button } from 'antd'
import { useState, type ReactNode } from 'react'
import { Link, useNavigate } from 'react-router'
import type { Finding, QuickFix, Severity } from '../../core/readiness/index.ts'
import { useHeldStill } from '../useHeldStill.ts'
import { useDone } from '../words/useDone.tsx'

const marks: Record<Severity, ReactNode> = {
  blocking: <CloseCircleFilled aria-hidden />,
  warning: <ExclamationCircleOutlined aria-hidden />,
  hint: <InfoCircleOutlined aria-hidden />
}

interface Props {
  findings: readonly Finding[]
  /** Names of cameras and devices by id, where the finding leads to them; left out: no way there is shown. */
  names?: ReadonlyMap<string, string>
  /** Applies a fix in another way than on the server; false: not one of these. */
  fixHere?: (fix: QuickFix) => boolean
  /** What else can be done about one, beside its fixes. */
  more?: (finding: Finding) => ReactNode
}

/** What was found, worst first: what it means on site, and what one click does about it. */
export function Findings({ findings, names, fixHere, more }: Props): ReactNode {
  const queries = useQueryClient()
  const navigate = useNavigate()
  const { message } = App.useApp()
  const done = useDone()
  const [working, setWorking] = useState<string | null>(null)
  // One that has been fixed goes, and the others move up.
  const [shown, hold] = useHeldStill(findings)
  const refresh = (): Promise<void> => queries.invalidateQueries()
  const fix = async (key: string, finding: Finding, what: QuickFix): Promise<void> => {
    if (fixHere?.(what)) return
    if (what.does === 'go') return void navigate(what.to)
    setWorking(key)
    try {
      // With all that tells one finding from another; most are only read.
      const { applyFix } = await import('./quickFix.ts')
      const back = await applyFix(finding, what)
      await refresh()
      done(msg.done(wordsOf(what.words)), back && (() => back().then(refresh)))
    } catch (error) {
      void message.error(problemWords(error))
    } finally {
      setWorking(null)
    }
  }
  return (
    <ul className="findings" onPointerDown={hold}>
      {shown.map((f) => {
        const key = `${f.code} ${f.camera} ${f.device} ${f.detection} ${codeText(f.sentence)}`
        return (
          <li key={key} className={f.severity}>
            <span
              className="finding-mark"
              title={msg[f.severity]}
              role="img"
              aria-label={msg[f.severity]}
            >
              {marks[f.severity]}
            </span>
            <span>
              {wordsOf(f.sentence)}{' '}
              {names && f.camera && names.has(f.camera) && (
                <Link to={`/bench/${f.camera}${f.detection ? `?detection=${f.detection}` : ''}`}>
                  {names.get(f.camera)}
                </Link>
              )}
              {names && !f.camera && f.device && (
                <Link to={`/devices?device=${f.device}`}>
                  {names.get(f.device) ?? msg.theDevice}
                </Link>
              )}
            </span>
            <span className="finding-mends">
              {[f.fix, f.orElse].flatMap((what) =>
                what ? (
                  <Button
                    key={wordsOf(what.words)}
                    size="small"
                    loading={working === key}
                    onClick={() => void fix(key, f, what)}
                  >
                    {wordsOf(what.words)}
                  </Button>
                ) : (
                  []
                )
              )}
              {more?.(f)}
            </span>
          </li>
        )
      })}
    </ul>
  )
}
