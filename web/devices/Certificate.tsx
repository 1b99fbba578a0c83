import { common } from '../../core/messages/en/common.ts'
import { certificate as msg } from '../../core/messages/en/devices.ts'
import { Button, Popconfirm } from 'antd'
import type { ReactNode } from 'react'
import { request } from '../api/client.ts'
import type { PartProps } from './act.ts'

/** The certificate that a device is known by, and another one that it shows instead, to be trusted or not. */
export function Certificate({ device: { id, certificate }, act, working }: PartProps): ReactNode {
  if (!certificate) return null
  const { kept, shown } = certificate
  return (
    <>
      <div>
        <dt>{msg.certificate}</dt>
        <dd className="figures fingerprint">{kept}</dd>
      </div>
      {shown && (
        <div>
          <dt className="failed">{msg.certificateNow}</dt>
          <dd>
            <span className="figures fingerprint">{shown}</span>
            <Popconfirm
              title={msg.trustItQuestion}
              description={msg.trustOnlyIf}
              okText={msg.trustCertificate}
              cancelText={common.cancel}
              onConfirm={() =>
                act('trust', () => request('POST', `/devices/${id}/certificate`, { shown }))
              }
            >
              <Button size="small" loading={working === 'trust'}>
                {msg.trustCertificate}
              </Button>
            </Popconfirm>
          </dd>
        </div>
      )}
    </>
  )
}
