import { phoneLink as msg } from '../../../core/messages/en/prove/phone.ts'
import { QrcodeOutlined } from '@ant-design/icons'
import { Button } from 'antd'
import { Suspense, useState, type ReactNode } from 'react'
import type { Check } from '../../../core/formats/check.ts'
import { lazyPart } from '../../lazyPart.tsx'

const PhoneDialog = lazyPart(() => import('./PhoneDialog.tsx'), 'PhoneDialog')

/** Opens a walk on a phone, as it is ordered here. */
export function PhoneButton({
  camera,
  check,
  disabled
}: {
  camera: string
  check: Check
  disabled: boolean
}): ReactNode {
  // As it was when the dialog was opened: that is what the code is for.
  const [opened, setOpened] = useState<Check | null>(null)
  return (
    <>
      <Button
        icon={<QrcodeOutlined aria-hidden />}
        disabled={disabled}
        onClick={() => setOpened(check)}
      >
        {msg.openOnPhone}
      </Button>
      {opened && (
        <Suspense fallback={null}>
          <PhoneDialog camera={camera} check={opened} onClose={() => setOpened(null)} />
        </Suspense>
      )}
    </>
  )
}
