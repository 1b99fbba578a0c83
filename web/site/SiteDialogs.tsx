import { common } from '../../core/messages/en/common.ts'
import {
  cameraDialog as msg,
  siteForm,
  surroundings as surroundingNames
} from '../../core/messages/en/site.ts'
import './site.css'
import { Input, Modal, Select } from 'antd'
import { useState, type ReactNode } from 'react'
import type { CameraSettings, SiteSettings } from '../../core/sites/settings.ts'
import { SURROUNDINGS } from '../../core/sites/surroundings.ts'
import { LookBackForm } from './LookBackForm.tsx'
import { SiteForm } from './SiteForm.tsx'

type Described = Omit<CameraSettings, 'order'>

/** Adding a camera, or changing what one is called and where it looks. */
export function CameraDialog({
  camera,
  site,
  onSave,
  onClose
}: {
  /** Null: a new one. */
  camera: Described | null
  site: SiteSettings
  onSave: (camera: Described) => void
  onClose: () => void
}): ReactNode {
  const [now, setNow] = useState<Described>(camera ?? { name: '', surroundings: null })
  const title = camera ? msg.editCamera : msg.addCamera
  const save = (): void => {
    if (!now.name.trim()) return
    onSave({ ...now, name: now.name.trim() })
    onClose()
  }
  return (
    <Modal
      open
      title={title}
      aria-label={title}
      okText={camera ? common.save : common.add}
      cancelText={common.cancel}
      okButtonProps={{ disabled: !now.name.trim() }}
      onOk={save}
      onCancel={onClose}
    >
      <div className="site-form">
        <label className="field">
          <span className="field-name">{common.name}</span>
          <Input
            autoFocus
            value={now.name}
            maxLength={80}
            onChange={(e) => setNow({ ...now, name: e.target.value })}
            onPressEnter={save}
          />
        </label>
        <label className="field">
          <span className="field-name">{msg.surroundings}</span>
          <Select
            aria-label={msg.surroundings}
            value={now.surroundings ?? ''}
            options={[
              { value: '', label: msg.asTheSite(surroundingNames[site.surroundings]) },
              ...SURROUNDINGS.map((value) => ({ value, label: surroundingNames[value] }))
            ]}
            onChange={(value) =>
              setNow({ ...now, surroundings: (value || null) as Described['surroundings'] })
            }
          />
        </label>
      </div>
    </Modal>
  )
}

export function SiteDialog({
  settings,
  cameras,
  onSave,
  onClose
}: {
  settings: SiteSettings
  cameras: readonly { id: string; name: string }[]
  onSave: (settings: SiteSettings) => void
  onClose: () => void
}): ReactNode {
  const [now, setNow] = useState(settings)
  return (
    <Modal
      open
      title={siteForm.editSite}
      aria-label={siteForm.editSite}
      okText={common.save}
      cancelText={common.cancel}
      okButtonProps={{ disabled: !now.name.trim() }}
      onOk={() => {
        onSave({ ...now, name: now.name.trim() })
        onClose()
      }}
      onCancel={onClose}
    >
      <SiteForm value={now} onChange={setNow} />
      <LookBackForm cameras={cameras} timeZone={settings.timeZone} />
    </Modal>
  )
}

export function DeleteCamera({
  name,
  detections,
  clips,
  onDelete,
  onClose
}: {
  name: string
  detections: number
  clips: number
  onDelete: () => void
  onClose: () => void
}): ReactNode {
  return (
    <Modal
      open
      title={msg.deleteTitle(name)}
      aria-label={msg.deleteTitle(name)}
      okText={common.delete}
      cancelText={common.cancel}
      okButtonProps={{ danger: true }}
      onOk={() => {
        onDelete()
        onClose()
      }}
      onCancel={onClose}
    >
      <p>{msg.goesWithIt(detections, clips)}</p>
    </Modal>
  )
}
