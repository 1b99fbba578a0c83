import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { importSite as msg } from '../../core/messages/en/sites.ts'
import { useQueryClient } from '@tanstack/react-query'
import { Alert, Modal, Select, Spin } from 'antd'
import { useEffect, useState, type ReactNode } from 'react'
import type { ArchiveChange, ImportPreview } from '../../core/sites/archive.ts'
import type { SiteSummary } from '../../core/sites/views.ts'
import { sendFile } from '../api/client.ts'
import { useClock } from '../words/useClock.ts'
import { sitesKey } from './useSites.ts'

const NEW = ''

/** @throws ApiError */
function send<T>(file: File, into: string, preview: boolean): Promise<T> {
  const query = new URLSearchParams({
    ...(into !== NEW && { into }),
    ...(preview && { preview: '1' })
  })
  return sendFile<T>(`/api/sites/import?${query}`, file, 'application/zip')
}

/** Takes in a site that was exported, into a new one or one that is there; what will change is listed before. */
export function ImportSite({
  file,
  sites,
  onClose,
  onImported
}: {
  file: File
  sites: readonly SiteSummary[]
  onClose: () => void
  onImported: (site: string) => void
}): ReactNode {
  const queries = useQueryClient()
  const clock = useClock()
  const [into, setInto] = useState(NEW)
  const [preview, setPreview] = useState<ImportPreview | null>(null)
  const [error, setError] = useState<string | null>(null)
  const [working, setWorking] = useState(false)
  useEffect(() => {
    let late = false
    send<ImportPreview>(file, into, true).then(
      (found) => {
        if (!late) setPreview(found)
      },
      (problem: unknown) => {
        if (!late) setError(problemWords(problem))
      }
    )
    return () => {
      late = true
    }
  }, [file, into])
  const choose = (site: string): void => {
    setInto(site)
    setPreview(null)
    setError(null)
  }
  const take = async (): Promise<void> => {
    setWorking(true)
    try {
      const { id } = await send<{ id: string }>(file, into, false)
      await queries.invalidateQueries({ queryKey: sitesKey })
      onImported(id)
    } catch (problem) {
      setError(problemWords(problem))
      setWorking(false)
    }
  }
  return (
    <Modal
      open
      width={560}
      title={msg.title(preview?.name ?? file.name)}
      okText={msg.take}
      cancelText={common.cancel}
      okButtonProps={{ disabled: !preview || preview.changes.length === 0 }}
      confirmLoading={working}
      onOk={() => void take()}
      onCancel={onClose}
    >
      <div className="site-add">
        <div className="field">
          <span className="field-name">{msg.into}</span>
          <Select
            aria-label={msg.into}
            value={into}
            showSearch={{ optionFilterProp: 'label' }}
            options={[
              { value: NEW, label: msg.aNewSite },
              ...sites.map(({ id, name: label }) => ({ value: id, label }))
            ]}
            onChange={choose}
          />
        </div>
        {error && <Alert type="error" title={`${file.name}: ${error}`} />}
        {!preview && !error && (
          <div className="quiet">
            <Spin size="small" /> {common.loading}
          </div>
        )}
        {preview && (
          <>
            <p className="quiet">{msg.exportedAt(clock.dateAndTime(preview.madeAt))}</p>
            {preview.changes.length === 0 ? (
              <p>{msg.nothingChanges}</p>
            ) : (
              <ul className="import-changes" aria-label={msg.changes}>
                {preview.changes.map((c) => (
                  <li key={`${c.thing} ${c.camera} ${c.name}`}>
                    {changeWords(c)} <span className="quiet">{msg.how[c.change]}</span>
                  </li>
                ))}
              </ul>
            )}
            <p className="quiet">{into === NEW ? msg.devicesNeedAccounts : msg.restStays}</p>
          </>
        )}
      </div>
    </Modal>
  )
}

const changeWords = ({ thing, name, camera }: ArchiveChange): string => {
  const what = name === '' ? msg.things[thing] : msg.named(msg.things[thing], name)
  return camera === null ? what : msg.on(what, camera)
}
