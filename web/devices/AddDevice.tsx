import { addDevice as msg } from '../../core/messages/en/devices.ts'
import './devices.css'
import { Modal } from 'antd'
import { useState, type ReactNode } from 'react'
import type { DeviceView } from '../../core/devices/views.ts'
import { AddByAddress } from './AddByAddress.tsx'
import { AddFound } from './AddFound.tsx'

/** Adding devices: several that the network was asked for, or one by its address. */
export function AddDevice({
  onClose,
  onAdded
}: {
  onClose: () => void
  /** The last one; null: several, which are listed. */
  onAdded: (device: DeviceView | null) => void
}): ReactNode {
  const [byAddress, setByAddress] = useState(false)
  return (
    <Modal
      open
      width={640}
      title={byAddress ? msg.addByAddress : msg.addDevices}
      onCancel={onClose}
      footer={null}
      aria-label={msg.addDevices}
    >
      {byAddress ? (
        <AddByAddress onBack={() => setByAddress(false)} onAdded={onAdded} />
      ) : (
        <AddFound onByAddress={() => setByAddress(true)} onAdded={onAdded} onClose={onClose} />
      )}
    </Modal>
  )
}
