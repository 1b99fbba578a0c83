import { useQueryClient } from '@tanstack/react-query'
import { App } from 'antd'
import { useEffect, type ReactNode } from 'react'
import { NavLink, useNavigate } from 'react-router'
import { request } from '../api/client.ts'
import { playSound } from './sounds.ts'
import { useAlarms } from './useAlarms.ts'

interface Popup {
  id: number
  alarm: number | null
  clip: boolean
  words: string
  sound: 'none' | 'chime' | 'alarm'
}

const TOLD_MS = 150
/** What is real stays until it is closed. */
const SHORT_S = 6

/** The alarms that wait, and pop-ups as they come; each one shown is confirmed to the server. */
export function Operators(): ReactNode {
  const queries = useQueryClient()
  const { notification } = App.useApp()
  const navigate = useNavigate()
  const waiting = useAlarms().data?.waiting ?? 0
  useEffect(() => {
    const source = new EventSource('/api/alarms/live')
    let timer: ReturnType<typeof setTimeout> | undefined
    source.addEventListener('alarm', () => {
      // Several at a time are read once.
      timer ??= setTimeout(() => {
        timer = undefined
        void queries.invalidateQueries({ queryKey: ['alarms'] })
      }, TOLD_MS)
    })
    source.addEventListener('popup', (event: MessageEvent<string>) => {
      const popup = JSON.parse(event.data) as Popup
      notification.warning({ key: `popup ${popup.alarm ?? popup.id}`, title: popup.words, description: popup.alarm === null ? 'A test' : popup.clip ? 'From a clip that runs as if it were live' : 'See the alarm', duration: popup.alarm === null || popup.clip ? SHORT_S : 0, icon: <span className="popup-flag" aria-hidden="true">⚑</span>, placement: 'bottomRight', onClick: () => popup.alarm !== null && void navigate('/actions/alarms') })
      playSound(popup.sound)
      void request('POST', `/api/deliveries/${popup.id}/shown`).catch(() => {})
    })
    return () => {
      clearTimeout(timer)
      source.close()
    }
  }, [queries, notification, navigate])
  if (!waiting) return null
  return (
    <NavLink to="/actions/alarms" className="alarm-counter">
      <span aria-hidden="true">⚑</span> {waiting} waiting
    </NavLink>
  )
}
