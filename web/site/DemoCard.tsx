import { demoCard as msg } from '../../core/messages/en/demo.ts'
import './site.css'
import { CloseOutlined } from '@ant-design/icons'
import { Button, Tooltip } from 'antd'
import { useQuery } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { Link } from 'react-router'
import type { DemoView } from '../../core/demo/views.ts'
import { request } from '../api/client.ts'
import { keep, kept } from '../kept.ts'

const READ_MS = 2000
const KEY = 'demo-card-hidden'

const TRY: readonly (readonly [to: string, name: string, says: string])[] = [
  ['/watch', msg.watch, msg.watchSays],
  ['/bench/fuel-pontoon?back=true&detection=pontoon-after-hours', msg.tune, msg.tuneSays],
  ['/prove', msg.prove, msg.proveSays],
  ['/devices', msg.send, msg.sendSays],
  ['/handover', msg.handover, msg.handoverSays]
]

const isHidden = (): boolean => kept(KEY) !== null

/** What the demo site has to show, and how far it is with that; once hidden, it stays so in this browser. */
export function DemoCard(): ReactNode {
  const [hidden, setHidden] = useState(isHidden)
  const { data } = useQuery({
    queryKey: ['demo'],
    queryFn: () => request<DemoView>('GET', '/demo'),
    enabled: !hidden,
    refetchInterval: ({ state }) => (state.data?.filling ? READ_MS : false)
  })
  if (hidden || !data?.hasPast) return null
  const hide = (): void => {
    setHidden(true)
    keep(KEY, '1')
  }
  return (
    <section className="demo-card" aria-label={msg.title}>
      <header>
        <h2>{msg.title}</h2>
        <span className="quiet" role="status">
          {data.filling && wordsOf(data.filling)}
        </span>
        <Tooltip title={msg.hide}>
          <Button
            type="text"
            size="small"
            icon={<CloseOutlined aria-hidden />}
            aria-label={msg.hide}
            onClick={hide}
          />
        </Tooltip>
      </header>
      <ol>
        {TRY.map(([to, name, says]) => (
          <li key={to}>
            <Link to={to}>{name}</Link>
            <p className="quiet">{says}</p>
          </li>
        ))}
      </ol>
    </section>
  )
}

function wordsOf({ step, share }: NonNullable<DemoView['filling']>): string {
  const words = msg[step]
  return typeof words === 'string' ? words : words(share)
}
