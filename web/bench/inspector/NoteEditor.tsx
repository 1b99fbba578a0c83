import { said } from '../../../core/messages/said.ts'
import { common } from '../../../core/messages/en/common.ts'
import { noteEditor as msg } from '../../../core/messages/en/bench/inspector.ts'
import { EditOutlined } from '@ant-design/icons'
import { Button, Input } from 'antd'
import { useState, type ReactNode } from 'react'
import type { Detection } from '../../../core/formats/plan.ts'
import { MAX_NOTE } from '../../../core/kinds/parts.ts'
import { useSession } from '../../accounts/useSession.ts'
import { NoteText } from '../../words/NoteText.tsx'
import type { BenchDocument } from '../document.ts'

/** Why a detection is set as it is, for whoever comes next. */
export function NoteEditor({
  detection,
  document
}: {
  detection: Detection
  document: BenchDocument
}): ReactNode {
  const account = useSession().data
  const [text, setText] = useState<string | null>(null)
  const { note } = detection
  const save = (): void => {
    const wanted = (text ?? '').trim()
    setText(null)
    if (wanted === (note?.text ?? '')) return
    document.edit(
      {
        ...detection,
        note: wanted ? { text: wanted, by: account?.name, at: Date.now() } : undefined
      },
      said(wanted ? 'edits.writeNote' : 'edits.deleteNote', detection.name)
    )
  }
  if (text === null)
    return note ? (
      <section className="detection-note" aria-label={msg.note}>
        <NoteText note={note} />
        <Button
          type="text"
          size="small"
          icon={<EditOutlined aria-hidden />}
          aria-label={msg.editNote}
          onClick={() => setText(note.text)}
        />
      </section>
    ) : (
      <Button type="text" size="small" className="park" onClick={() => setText('')}>
        {msg.addNote}
      </Button>
    )
  return (
    <form
      className="detection-note-form"
      onSubmit={(e) => {
        e.preventDefault()
        save()
      }}
    >
      <Input.TextArea
        autoFocus
        rows={4}
        aria-label={msg.note}
        placeholder={msg.whySet}
        maxLength={MAX_NOTE}
        value={text}
        onChange={(e) => setText(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === 'Escape') setText(null)
          if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) save()
        }}
      />
      <span className="detection-note-acts">
        <Button size="small" onClick={() => setText(null)}>
          {common.cancel}
        </Button>
        <Button size="small" type="primary" htmlType="submit">
          {common.save}
        </Button>
      </span>
    </form>
  )
}
