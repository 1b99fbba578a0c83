import { common as general } from '../../../core/messages/en/common.ts'
import { newButtons as msg } from '../../../core/messages/en/bench/rail.ts'
import '../bench.css'
import { isOneOf } from '../../../core/isOneOf.ts'
import { DownOutlined } from '@ant-design/icons'
import { Button, Dropdown, Space } from 'antd'
import { memo, type ReactNode } from 'react'
import { kindNames } from '../../../core/kinds/names.ts'
import { type DrawnKind } from '../picture/shape.ts'
import { UNDRAWN_KINDS, type UndrawnKind } from '../../kinds/newDetection.ts'
import { TEMPLATES, type Template } from './templates.ts'
import { ZONE_KINDS } from '../../kinds/zones.ts'

/** What can be drawn or made again. */
export const NewButtons = memo(function NewButtons({
  hasPicture,
  hasInputs,
  onDraw,
  onNew,
  onTemplate
}: {
  hasPicture: boolean
  hasInputs: boolean
  onDraw: (kind: DrawnKind) => void
  onNew: (kind: UndrawnKind) => void
  onTemplate: (template: Template) => void
}): ReactNode {
  const undrawable = hasPicture ? undefined : msg.pictureFirst
  return (
    <>
      <Space.Compact block>
        <Button
          className="grow"
          onClick={() => onDraw('line')}
          disabled={!hasPicture}
          title={undrawable}
        >
          {msg.line} <kbd>{msg.l}</kbd>
        </Button>
        <Button onClick={() => onDraw('intrusion')} disabled={!hasPicture} title={undrawable}>
          {general.zone} <kbd>{msg.z}</kbd>
        </Button>
        <Dropdown
          trigger={['click']}
          menu={{
            items: [
              {
                key: 'ignore',
                label: (
                  <>
                    {msg.ignoreArea} <kbd>{msg.i}</kbd>
                  </>
                ),
                disabled: !hasPicture
              },
              ...ZONE_KINDS.filter((key) => key !== 'intrusion').map((key) => ({
                key,
                label: kindNames[key],
                disabled: !hasPicture
              })),
              { type: 'divider' as const },
              ...UNDRAWN_KINDS.map((key) => ({
                key,
                label: kindNames[key],
                disabled: key === 'contact' && !hasInputs
              }))
            ],
            onClick: ({ key }) =>
              key === 'ignore' || isOneOf(ZONE_KINDS, key) ? onDraw(key) : onNew(key as UndrawnKind)
          }}
        >
          <Button icon={<DownOutlined aria-hidden />} aria-label={msg.otherKinds} />
        </Dropdown>
      </Space.Compact>
      <Dropdown
        trigger={['click']}
        menu={{
          className: 'templates',
          items: TEMPLATES.map((t) => ({
            key: t.id,
            disabled: t.shape !== null && !hasPicture,
            label: (
              <>
                <strong>{t.name}</strong>
                <span className="quiet">{t.says}</span>
              </>
            )
          })),
          onClick: ({ key }) => onTemplate(TEMPLATES.find(({ id }) => id === key)!)
        }}
      >
        <Button block>
          {msg.templates} <DownOutlined aria-hidden />
        </Button>
      </Dropdown>
    </>
  )
})
