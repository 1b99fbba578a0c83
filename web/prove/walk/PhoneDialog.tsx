import { common } from '../../../core/messages/en/common.ts'
import { phoneLink as msg } from '../../../core/messages/en/prove/phone.ts'
import { problemWords } from '../../../core/messages/errorWords.ts'
import { wordsOf } from '../../../core/messages/words.ts'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Alert, App, Button, Modal, QRCode, Select } from 'antd'
import { useEffect, useState, type ReactNode } from 'react'
import type { Check } from '../../../core/formats/check.ts'
import type { NewPhoneLink, PhoneLinksView } from '../../../core/proving/phone.ts'
import { browserOf } from '../../accounts/browserOf.ts'
import { request } from '../../api/client.ts'
import { Passed } from '../../words/signs.tsx'
import { useClock } from '../../words/useClock.ts'
import { walkOf } from './useWalk.ts'

const LOOK_MS = 1500
const LOOPBACK = /^(localhost|127\.\d+\.\d+\.\d+|\[::1\])$/

/** A code that opens a walk on a phone; which phones have been let in before this camera, to be revoked. */
export function PhoneDialog({
  camera,
  check,
  onClose
}: {
  camera: string
  check: Check
  onClose: () => void
}): ReactNode {
  const path = `${walkOf(camera)}/links`
  const clock = useClock()
  const queries = useQueryClient()
  const { message } = App.useApp()
  const [made, setMade] = useState<NewPhoneLink | null>(null)
  const [error, setError] = useState<string | null>(null)
  const [chosen, setChosen] = useState<string | null>(null)
  const [wanted, setWanted] = useState(0)
  const view = useQuery({
    queryKey: ['phone-links', camera],
    queryFn: () => request<PhoneLinksView>('GET', path),
    refetchInterval: LOOK_MS
  }).data

  useEffect(() => {
    let over = false
    let link: NewPhoneLink | null = null
    const revokeUnused = async (id: number): Promise<void> => {
      // What nobody has opened while it was shown is good for nobody: who scans it later has seen it over a shoulder.
      const now = await request<PhoneLinksView>('GET', path)
      if (now.links.some((l) => l.id === id && l.opened === null))
        await request('DELETE', `${path}/${id}`)
    }
    const make = async (): Promise<void> => {
      try {
        link = await request<NewPhoneLink>('POST', path, { check })
        if (over) return await revokeUnused(link.id)
        setMade(link)
        setError(null)
      } catch (problem) {
        if (!over) setError(problemWords(problem))
      }
    }
    void make()
    return () => {
      over = true
      if (link) revokeUnused(link.id).catch(() => {})
    }
  }, [path, check, wanted])

  const revoke = async (id: number): Promise<void> => {
    try {
      await request('DELETE', `${path}/${id}`)
      void message.success(msg.revoked)
    } catch (problem) {
      void message.error(problemWords(problem))
    }
    await queries.invalidateQueries({ queryKey: ['phone-links', camera] })
  }
  const own = LOOPBACK.test(location.hostname) ? [] : [location.origin]
  const origins = [...new Set([...own, ...(view?.origins ?? [])])]
  const origin = chosen ?? origins[0] ?? location.origin
  const address = made && `${origin}/phone#${made.token}`
  const listed = made && view?.links.find((l) => l.id === made.id)
  const opened = listed?.opened ?? null
  // It was there and is no more: its hour is over, or it was revoked here or elsewhere.
  const [seen, setSeen] = useState(0)
  if (listed && seen !== listed.id) setSeen(listed.id)
  const over = made !== null && view !== undefined && seen === made.id && !listed
  const others = (view?.links ?? []).filter((l) => l.id !== made?.id || l.opened !== null)
  return (
    <Modal
      open
      width={640}
      title={msg.title(wordsOf(check.name))}
      footer={null}
      onCancel={onClose}
      closable={{ 'aria-label': common.close }}
    >
      <div className="phone-dialog">
        {error && <Alert type="error" showIcon title={error} />}
        {!error && !made && <p className="quiet">{msg.preparing}</p>}
        {made && address && !opened && !over && (
          <>
            {!origins.length && view && <Alert type="warning" showIcon title={msg.onlyHere} />}
            <div className="phone-code">
              <div className="phone-qr">
                <QRCode
                  aria-label={msg.qrCode}
                  type="svg"
                  value={address}
                  size={216}
                  marginSize={4}
                  bordered={false}
                  color="#000"
                  bgColor="#fff"
                />
              </div>
              <div className="phone-how">
                <p>
                  <strong>{msg.scan}</strong>
                </p>
                <p>{msg.goodOnce(clock.minute(made.expiresAt))}</p>
                {origins.length > 1 && (
                  <label className="field">
                    <span className="field-name">{msg.address}</span>
                    <Select
                      value={origin}
                      options={origins.map((value) => ({ value, label: value }))}
                      onChange={setChosen}
                    />
                  </label>
                )}
                <p className="quiet">
                  {msg.orOpen} <span className="figures phone-address">{address}</span>
                </p>
                <Button
                  size="small"
                  onClick={() =>
                    void navigator.clipboard
                      .writeText(address)
                      .then(() => message.success(msg.copied))
                  }
                >
                  {msg.copy}
                </Button>
              </div>
            </div>
          </>
        )}
        {made && opened && (
          <p className="phone-opened" role="status">
            <Passed />
            <span>
              <strong>{msg.opened}</strong>
              <br />
              {msg.openedFrom(browserOf(opened.agent), opened.address)}
            </span>
          </p>
        )}
        {over && <p role="status">{msg.over}</p>}
        {(opened || over) && (
          <Button
            onClick={() => {
              setMade(null)
              setWanted((n) => n + 1)
            }}
          >
            {msg.newCode}
          </Button>
        )}
        {others.length > 0 && (
          <section aria-label={msg.access}>
            <h3>{msg.access}</h3>
            <ul className="phone-links">
              {others.map((l) => (
                <li key={l.id}>
                  <span>
                    {wordsOf(l.name)}
                    <small className="quiet">
                      {l.opened
                        ? msg.openedFrom(browserOf(l.opened.agent), l.opened.address)
                        : msg.notOpened}
                      {' · '}
                      {msg.line(l.by, clock.minute(l.expiresAt))}
                    </small>
                  </span>
                  <Button size="small" danger onClick={() => void revoke(l.id)}>
                    {msg.revoke}
                  </Button>
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
    </Modal>
  )
}
