import { common } from '../../core/messages/en/common.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { shift as msg } from '../../core/messages/en/watch.ts'
import { useQueryClient } from '@tanstack/react-query'
import { Alert, App, Button, Input, Modal } from 'antd'
import type { TextAreaRef } from 'antd/es/input/TextArea'
import { useRef, useState, type ReactNode } from 'react'
import type { ShiftCounts, ShiftNote, ShiftView } from '../../core/watch/shift.ts'
import { request } from '../api/client.ts'
import { useClock } from '../words/useClock.ts'
import { SHIFT_KEY } from './useShift.ts'

/** Who is signed in, what the shift before left, and a note for the next one. */
export function ShiftNotes({ shift, mayAct }: { shift: ShiftView; mayAct: boolean }): ReactNode {
  const clock = useClock()
  const queries = useQueryClient()
  const { message } = App.useApp()
  const [writing, setWriting] = useState(false)
  const { signedIn, note, counts } = shift
  const refresh = (): Promise<void> => queries.invalidateQueries({ queryKey: SHIFT_KEY })
  const markAsRead = async ({ id }: ShiftNote): Promise<void> => {
    try {
      await request('POST', `/shift/notes/${id}/read`)
    } catch (problem) {
      void message.error(problemWords(problem))
    }
    await refresh()
  }
  return (
    <section className="shift" aria-label={msg.title}>
      <p className="shift-line quiet">
        <span>
          {msg.signedIn(signedIn.map((p) => msg.since(p.name, clock.minute(p.since))).join(', '))}
        </span>
        {mayAct && (
          <Button size="small" onClick={() => setWriting(true)}>
            {msg.write}
          </Button>
        )}
      </p>
      {note && note.readAt === null && (
        <div className="shift-note">
          <p className="quiet">{msg.from(note.by, clock.dateAndTime(note.at))}</p>
          <p className="shift-words">{note.words}</p>
          <p className="quiet">
            <Counts counts={note.counts} />
          </p>
          {mayAct && (
            <Button size="small" type="primary" onClick={() => void markAsRead(note)}>
              {msg.markAsRead}
            </Button>
          )}
        </div>
      )}
      {note && note.readAt !== null && (
        <details className="shift-last">
          <summary>{msg.lastNote}</summary>
          <p className="quiet">{msg.from(note.by, clock.dateAndTime(note.at))}</p>
          <p className="shift-words">{note.words}</p>
          <p className="quiet">
            <Counts counts={note.counts} />{' '}
            {msg.readBy(note.readBy ?? '', clock.minute(note.readAt))}
          </p>
        </details>
      )}
      {writing && (
        <Writing
          counts={counts}
          onClose={(saved) => {
            setWriting(false)
            if (!saved) return
            void message.success(msg.saved)
            void refresh()
          }}
        />
      )}
    </section>
  )
}

function Counts({ counts: c }: { counts: ShiftCounts }): ReactNode {
  const clock = useClock()
  return (
    <>
      {msg.counts(clock.minute(c.since), c.alarms, c.closed, c.nuisance)} {msg.active(c.active)}
    </>
  )
}

function Writing({
  counts,
  onClose
}: {
  counts: ShiftCounts
  onClose: (saved: boolean) => void
}): ReactNode {
  const [words, setWords] = useState('')
  const [error, setError] = useState<string | null>(null)
  const field = useRef<TextAreaRef>(null)
  const save = async (): Promise<void> => {
    try {
      await request('POST', '/shift/notes', { words })
      onClose(true)
    } catch (problem) {
      setError(problemWords(problem, { words: msg.whatTheNextNeeds }))
    }
  }
  return (
    <Modal
      open
      title={msg.write}
      okText={msg.save}
      cancelText={common.cancel}
      okButtonProps={{ disabled: !words.trim() }}
      onOk={() => void save()}
      onCancel={() => onClose(false)}
      afterOpenChange={(open) => open && field.current?.focus()}
    >
      <p className="quiet">
        <Counts counts={counts} />
      </p>
      <label className="field">
        <span className="field-name">{msg.whatTheNextNeeds}</span>
        <Input.TextArea
          ref={field}
          rows={4}
          maxLength={2000}
          placeholder={msg.example}
          value={words}
          onChange={(e) => setWords(e.target.value)}
        />
      </label>
      {error && <Alert type="error" title={error} />}
    </Modal>
  )
}
