import { atSite } from '../api/here.ts'
import { common } from '../../core/messages/en/common.ts'
import type { Said } from '../../core/messages/said.ts'
import { wordsOf } from '../../core/messages/words.ts'
import { operators as msg } from '../../core/messages/en/alarms.ts'
import './alarms.css'
import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useState, type ReactNode } from 'react'
import { NavLink, useNavigate } from 'react-router'
import { request } from '../api/client.ts'
import { setServerState } from '../api/serverState.ts'
import { playSound } from './sounds.ts'
import { useAlarms } from './useAlarms.ts'
import { CloseOutlined } from '@ant-design/icons'
import { Flag } from '../words/signs.tsx'

interface Popup {
  id: number
  alarm: number | null
  clip: boolean
  said: Said
  sound: 'none' | 'chime' | 'alarm'
  /** When it came. */
  at: number
}

const TOLD_MS = 150
/** A list that was read so soon after a pop-up came may have been asked for before it. */
const LIST_MS = 1000
/** What is real stays until it is closed, or its alarm acknowledged. */
const SHORT_S = 6
/** The alarm sound comes again so often until its alarm is acknowledged. */
const AGAIN_MS = 10_000
/** More at a time are a number. */
const MOST = 20

/**
 * New alarms, and pop-ups as they come; each one shown is confirmed to the server. They stand in the top bar,
 * the newest in words: over the work they would hide what somebody is about to click.
 */
export function Operators(): ReactNode {
  const queries = useQueryClient()
  const navigate = useNavigate()
  const { data: alarms, dataUpdatedAt } = useAlarms()
  const [popups, setPopups] = useState<Popup[]>([])
  /** Alarms that came with the alarm sound; closing their pop-ups does not end it. */
  const [loud, setLoud] = useState<readonly number[]>([])
  useEffect(() => {
    const source = new EventSource(atSite('/alarms/live'))
    let timer: ReturnType<typeof setTimeout> | undefined
    const closing = new Set<ReturnType<typeof setTimeout>>()
    source.addEventListener('alarm', () => {
      // Several at a time are read once.
      timer ??= setTimeout(() => {
        timer = undefined
        void queries.invalidateQueries({ queryKey: ['alarms'] })
      }, TOLD_MS)
    })
    source.addEventListener('popup', (event: MessageEvent<string>) => {
      const popup = { ...(JSON.parse(event.data) as Omit<Popup, 'at'>), at: Date.now() }
      setPopups((shown) =>
        [popup, ...shown.filter((p) => p.alarm === null || p.alarm !== popup.alarm)].slice(0, MOST)
      )
      if (popup.alarm === null || popup.clip)
        closing.add(
          setTimeout(
            () => setPopups((shown) => shown.filter((p) => p.id !== popup.id)),
            SHORT_S * 1000
          )
        )
      playSound(popup.sound)
      const { alarm } = popup
      if (popup.sound === 'alarm' && alarm !== null && !popup.clip)
        setLoud((known) => [...known.filter((id) => id !== alarm), alarm].slice(-MOST))
      void request('POST', `/deliveries/${popup.id}/shown`).catch(() => {})
    })
    source.addEventListener('database', (event: MessageEvent<string>) => {
      const { up } = JSON.parse(event.data) as { up: boolean }
      setServerState(up ? null : common.theDatabaseDoesNot)
      if (up) void queries.invalidateQueries()
    })
    return () => {
      clearTimeout(timer)
      closing.forEach(clearTimeout)
      source.close()
    }
  }, [queries])
  // Gone once its alarm is no longer new; the list may not know yet of one that has just come.
  const waitingNow = new Set(alarms?.alarms.filter((a) => a.state === 'waiting').map((a) => a.id))
  const open = popups.filter(
    (p) => p.alarm === null || waitingNow.has(p.alarm) || p.at + TOLD_MS > dataUpdatedAt - LIST_MS
  )
  const isLoud = loud.some((id) => waitingNow.has(id))
  useEffect(() => {
    if (!isLoud) return
    const timer = setInterval(() => playSound('alarm'), AGAIN_MS)
    return () => clearInterval(timer)
  }, [isLoud])
  const newest = open.at(0)
  const waiting = alarms?.waiting ?? 0
  return (
    <>
      <span className="popup" aria-live="assertive">
        {newest && (
          <>
            <button
              type="button"
              className="popup-words"
              title={wordsOf(newest.said)}
              onClick={() =>
                void navigate(newest.alarm === null ? '/watch' : `/watch?alarm=${newest.alarm}`)
              }
            >
              <Flag /> {wordsOf(newest.said)}
              {newest.alarm === null ? msg.aTest : newest.clip && msg.fromAClip}
            </button>
            {open.length > 1 && <small>+{open.length - 1}</small>}
            <button
              type="button"
              className="popup-close"
              aria-label={open.length > 1 ? msg.closePopUps(open.length) : msg.closeThePopUp}
              onClick={() => setPopups([])}
            >
              <CloseOutlined aria-hidden />
            </button>
          </>
        )}
      </span>
      {waiting > 0 && (
        <NavLink to="/watch" className="alarm-counter">
          <Flag /> {msg.waiting(waiting)}
        </NavLink>
      )}
    </>
  )
}
