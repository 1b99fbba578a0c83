import { common } from '../../core/messages/en/common.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { handoverPlace as msg } from '../../core/messages/en/handover.ts'
import { useQueryClient } from '@tanstack/react-query'
import { Alert, Checkbox, Input, Modal, Radio } from 'antd'
import { useState, type ReactNode } from 'react'
import {
  PAPERS,
  type HandoverView,
  type MakeRecord,
  type Paper
} from '../../core/handover/views.ts'
import { request } from '../api/client.ts'
import { HANDOVER } from './useHandover.ts'

/** What a record is made with. @param service it ends the service visit */
export function MakeDialog({
  view,
  service,
  onClose
}: {
  view: HandoverView
  service: boolean
  onClose: () => void
}): ReactNode {
  const queries = useQueryClient()
  const [asked, setAsked] = useState<MakeRecord>({
    client: view.last?.client ?? '',
    installer: view.last?.installer ?? '',
    note: view.last?.note ?? '',
    paper: view.records[0]?.paper ?? 'a4',
    runChecks: true,
    allowOpen: service,
    service
  })
  const [error, setError] = useState<string | null>(null)
  const set = (change: Partial<MakeRecord>): void => setAsked({ ...asked, ...change })
  const open = view.open.length
  const title = service ? msg.visitSteps.finish : msg.makeTitle
  const make = async (): Promise<void> => {
    try {
      await request('POST', '/records', asked)
      await queries.invalidateQueries({ queryKey: HANDOVER })
      onClose()
    } catch (problem) {
      setError(problemWords(problem))
    }
  }
  return (
    <Modal
      open
      title={title}
      okText={title}
      okButtonProps={{ disabled: open > 0 && !asked.allowOpen }}
      cancelText={common.cancel}
      onOk={() => void make()}
      onCancel={onClose}
    >
      <div className="handover-form">
        <label className="field">
          <span>{msg.client}</span>
          <Input
            value={asked.client}
            maxLength={200}
            autoFocus
            onChange={(event) => set({ client: event.target.value })}
          />
        </label>
        <label className="field">
          <span>{msg.installer}</span>
          <Input
            value={asked.installer}
            maxLength={200}
            onChange={(event) => set({ installer: event.target.value })}
          />
        </label>
        <label className="field">
          <span>{msg.remarks}</span>
          <Input.TextArea
            rows={3}
            value={asked.note}
            maxLength={4000}
            placeholder={msg.remarksHint}
            onChange={(event) => set({ note: event.target.value })}
          />
        </label>
        <div className="row">
          <span>{msg.paper}</span>
          <Radio.Group
            value={asked.paper}
            onChange={(event) => set({ paper: event.target.value as Paper })}
            options={PAPERS.map((value) => ({ value, label: msg.papers[value] }))}
          />
        </div>
        {!service && (
          <Checkbox
            checked={asked.runChecks}
            onChange={(event) => set({ runChecks: event.target.checked })}
          >
            {msg.runChecks}
          </Checkbox>
        )}
        {open > 0 && (
          <Checkbox
            checked={asked.allowOpen}
            onChange={(event) => set({ allowOpen: event.target.checked })}
          >
            {msg.openAnyway(open)}
          </Checkbox>
        )}
        {error && <Alert type="error" title={error} />}
      </div>
    </Modal>
  )
}
