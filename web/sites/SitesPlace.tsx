import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { roles } from '../../core/messages/en/accounts.ts'
import { sitesPlace as msg } from '../../core/messages/en/sites.ts'
import './sites.css'
import { DeleteOutlined, ImportOutlined, PlusOutlined } from '@ant-design/icons'
import { useQueryClient } from '@tanstack/react-query'
import { App, Button, Input, Popconfirm, Upload } from 'antd'
import { useState, type ReactNode } from 'react'
import type { AccountView } from '../../core/accounts/accounts.ts'
import type { SiteSummary } from '../../core/sites/views.ts'
import { UserMenu } from '../accounts/UserMenu.tsx'
import { request } from '../api/client.ts'
import { homeOf } from '../api/here.ts'
import { Mark } from '../shell/Mark.tsx'
import { AddSite } from './AddSite.tsx'
import { ImportSite } from './ImportSite.tsx'
import { matching } from './matching.ts'
import { sitesKey } from './useSites.ts'

/** All sites of the installation that somebody has to do with. */
export function SitesPlace({
  account,
  sites,
  onSite
}: {
  account: AccountView
  sites: readonly SiteSummary[]
  onSite: (site: string) => void
}): ReactNode {
  const { message } = App.useApp()
  const queries = useQueryClient()
  const [wanted, setWanted] = useState('')
  const [adding, setAdding] = useState(false)
  const [file, setFile] = useState<File | null>(null)
  const administers = account.role === 'installer'
  const shown = matching(sites, wanted)
  const again = (): Promise<void> => queries.invalidateQueries({ queryKey: sitesKey })
  const remove = async ({ id, name }: SiteSummary): Promise<void> => {
    try {
      await request('DELETE', `/api/sites/${id}`)
      await again()
      const close = message.success({
        key: id,
        duration: 10,
        content: (
          <>
            {msg.deleted(name)}{' '}
            <Button
              size="small"
              type="link"
              onClick={() => {
                close()
                void request('POST', `/api/sites/${id}/restore`).then(again)
              }}
            >
              {common.undo}
            </Button>
          </>
        )
      })
    } catch (problem) {
      void message.error(problemWords(problem))
    }
  }
  return (
    <div className="app">
      <header className="top-bar">
        <span className="brand">
          <Mark /> {common.wardoptic}
        </span>
        <span className="grow" />
        <UserMenu account={account} />
      </header>
      <main className="sites-place">
        <div className="sites-head">
          <h1>{msg.sites}</h1>
          {sites.length > 8 && (
            <Input.Search
              className="sites-find"
              allowClear
              aria-label={msg.findASite}
              placeholder={msg.findASite}
              value={wanted}
              onChange={(e) => setWanted(e.target.value)}
            />
          )}
          <span className="grow" />
          {administers && (
            <Upload
              accept=".zip,application/zip"
              showUploadList={false}
              beforeUpload={(chosen) => {
                setFile(chosen)
                return false
              }}
            >
              <Button icon={<ImportOutlined aria-hidden />}>{msg.importSite}</Button>
            </Upload>
          )}
          {administers && (
            <Button
              type="primary"
              icon={<PlusOutlined aria-hidden />}
              onClick={() => setAdding(true)}
            >
              {msg.addSite}
            </Button>
          )}
        </div>
        {sites.length === 0 && <p className="quiet">{msg.noSites}</p>}
        {sites.length > 0 && shown.length === 0 && (
          <p className="quiet">{msg.noneMatches(wanted)}</p>
        )}
        <ul className="sites-list">
          {shown.map((site) => (
            <li key={site.id}>
              <a
                href={homeOf(site.id)}
                onClick={(e) => {
                  if (e.ctrlKey || e.metaKey || e.shiftKey) return
                  e.preventDefault()
                  onSite(site.id)
                }}
              >
                <span className="sites-name">{site.name}</span>
                <span className="quiet">
                  {site.isSetUp
                    ? msg.about(msg.cameras(site.cameras), site.timeZone)
                    : msg.notSetUp}
                </span>
              </a>
              {site.newAlarms > 0 && (
                <span className="sites-alarms">{msg.newAlarms(site.newAlarms)}</span>
              )}
              {site.role !== account.role && (
                <span className="quiet sites-role">{roles[site.role]}</span>
              )}
              {administers && (
                <Popconfirm
                  title={msg.deleteSite(site.name)}
                  description={msg.whatGoes(site.cameras)}
                  okText={common.delete}
                  cancelText={common.cancel}
                  okButtonProps={{ danger: true }}
                  onConfirm={() => void remove(site)}
                >
                  <Button
                    type="text"
                    aria-label={msg.deleteNamed(site.name)}
                    icon={<DeleteOutlined aria-hidden />}
                  />
                </Popconfirm>
              )}
            </li>
          ))}
        </ul>
      </main>
      {file && (
        <ImportSite file={file} sites={sites} onClose={() => setFile(null)} onImported={onSite} />
      )}
      <AddSite open={adding} sites={sites} onClose={() => setAdding(false)} onAdded={onSite} />
    </div>
  )
}
