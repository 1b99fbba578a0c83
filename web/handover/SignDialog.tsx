import { common } from '../../core/messages/en/common.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { handoverPlace as msg } from '../../core/messages/en/handover.ts'
import { useQueryClient } from '@tanstack/react-query'
import { Alert, Checkbox, Input, Modal, Select } from 'antd'
import { useState, type ReactNode } from 'react'
import { digestGroups } from '../../core/handover/digest.ts'
import type { Signature } from '../../core/handover/record.ts'
import type { RecordView } from '../../core/handover/views.ts'
import { request } from '../api/client.ts'
import { SignaturePad, type Strokes } from './SignaturePad.tsx'
import { HANDOVER, RECORDS } from './useHandover.ts'

const ROLES = ['client', 'installer', 'station'] as const

/** Signs a record: for whom, by whom, on the screen or on paper, under the digest that is shown. */
export function SignDialog({
  record,
  onClose
}: {
  record: RecordView
  onClose: () => void
}): ReactNode {
  const queries = useQueryClient()
  const [role, setRole] = useState<Signature['role']>(
    ROLES.find((r) => !record.signatures.some((s) => s.role === r)) ?? 'client'
  )
  const [name, setName] = useState('')
  const [strokes, setStrokes] = useState<Strokes>([])
  const [onPaper, setOnPaper] = useState(false)
  const [error, setError] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const save = async (): Promise<void> => {
    if (!onPaper && !strokes.length) return setError(msg.noSignature)
    setBusy(true)
    try {
      await request('POST', `/records/${record.number}/signatures`, {
        name,
        role,
        digest: record.digest,
        strokes: onPaper ? null : strokes
      })
      await Promise.all([
        queries.invalidateQueries({ queryKey: HANDOVER }),
        queries.invalidateQueries({ queryKey: RECORDS })
      ])
      onClose()
    } catch (problem) {
      setError(problemWords(problem))
      setBusy(false)
    }
  }
  return (
    <Modal
      open
      title={msg.signTitle(record.number)}
      okText={msg.signTitle(record.number)}
      okButtonProps={{ disabled: !name.trim() }}
      confirmLoading={busy}
      cancelText={common.cancel}
      onOk={() => void save()}
      onCancel={onClose}
    >
      <div className="handover-form">
        <div className="row">
          <label className="field">
            <span>{msg.signFor}</span>
            <Select
              value={role}
              onChange={setRole}
              options={ROLES.map((value) => ({ value, label: msg.roles[value] }))}
            />
          </label>
          <label className="field grow">
            <span>{msg.name}</span>
            <Input
              value={name}
              maxLength={80}
              autoFocus
              onChange={(event) => setName(event.target.value)}
            />
          </label>
        </div>
        {!onPaper && <SignaturePad strokes={strokes} onChange={setStrokes} />}
        <Checkbox checked={onPaper} onChange={(event) => setOnPaper(event.target.checked)}>
          {msg.onPaper}
        </Checkbox>
        <p className="quiet digest">{digestGroups(record.digest).join(' ')}</p>
        {error && <Alert type="error" title={error} />}
      </div>
    </Modal>
  )
}
