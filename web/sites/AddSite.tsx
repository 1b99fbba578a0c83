import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { sitesPlace as msg } from '../../core/messages/en/sites.ts'
import { useQueryClient } from '@tanstack/react-query'
import { Alert, Input, Modal, Select } from 'antd'
import { useState, type ReactNode } from 'react'
import type { SiteSummary } from '../../core/sites/views.ts'
import { request } from '../api/client.ts'
import { sitesKey } from './useSites.ts'

/** A new site, empty or with the schedules, default actions and messages of another one. */
export function AddSite({
  open,
  sites,
  onClose,
  onAdded
}: {
  open: boolean
  sites: readonly SiteSummary[]
  onClose: () => void
  onAdded: (site: string) => void
}): ReactNode {
  const queries = useQueryClient()
  const [name, setName] = useState('')
  const [from, setFrom] = useState('')
  const [error, setError] = useState<string | null>(null)
  const add = async (): Promise<void> => {
    setError(null)
    try {
      const site = await request<SiteSummary>('POST', '/api/sites', {
        name,
        from: from === '' ? null : from
      })
      await queries.invalidateQueries({ queryKey: sitesKey })
      onAdded(site.id)
    } catch (problem) {
      setError(problemWords(problem, { name: common.name, from: msg.beginWith }))
    }
  }
  return (
    <Modal
      open={open}
      title={msg.addSiteTitle}
      okText={msg.addSiteTitle}
      cancelText={common.cancel}
      okButtonProps={{ disabled: name.trim() === '' }}
      onOk={() => void add()}
      onCancel={onClose}
      destroyOnHidden
      width={420}
    >
      <form
        className="site-add"
        onSubmit={(e) => {
          e.preventDefault()
          if (name.trim() !== '') void add()
        }}
      >
        <label className="field">
          <span className="field-name">{common.name}</span>
          <Input
            autoFocus
            maxLength={80}
            value={name}
            placeholder={msg.nameSuchAs}
            onChange={(e) => setName(e.target.value)}
          />
        </label>
        <div className="field">
          <span className="field-name">{msg.beginWith}</span>
          <Select
            aria-label={msg.beginWith}
            value={from}
            showSearch={{ optionFilterProp: 'label' }}
            options={[
              { value: '', label: msg.nothing },
              ...sites.map(({ id, name: label }) => ({ value: id, label }))
            ]}
            onChange={setFrom}
          />
          <p className="quiet field-note">{from === '' ? msg.emptySays : msg.templateSays}</p>
        </div>
        {error && <Alert type="error" title={error} />}
      </form>
    </Modal>
  )
}
