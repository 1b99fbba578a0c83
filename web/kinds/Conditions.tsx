import { sentence as msg } from '../../core/messages/en/kinds/parts.ts'
import { PlusOutlined } from '@ant-design/icons'
import { Dropdown } from 'antd'
import { Fragment, type ReactNode } from 'react'
import { Chip } from './Chip.tsx'

/** A condition of a detection that may be left at its default: then the sentence leaves it out. */
export interface Condition {
  what: string
  isSet: boolean
  text: string
  editor: (close: () => void) => ReactNode
}

/** Those that are set, and the one that is being added, each after a comma. */
export const ConditionChips = ({
  all,
  adding,
  onAdded
}: {
  all: readonly Condition[]
  adding: string | null
  onAdded: () => void
}): ReactNode =>
  all.map(({ what, isSet, text, editor }) =>
    isSet || adding === what ? (
      <Fragment key={what}>
        ,{' '}
        <Chip what={what} editor={editor} {...(adding === what && { onClosed: onAdded })}>
          {text}
        </Chip>
      </Fragment>
    ) : null
  )

/** Leads to the conditions that are at their defaults. */
export function AddCondition({
  all,
  onAdd
}: {
  all: readonly Condition[]
  onAdd: (what: string) => void
}): ReactNode {
  const left = all.filter(({ isSet }) => !isSet)
  if (!left.length) return null
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        items: left.map(({ what }) => ({ key: what, label: what })),
        onClick: ({ key, domEvent }) => {
          domEvent.stopPropagation()
          onAdd(key)
        }
      }}
    >
      <button type="button" className="add-condition">
        <PlusOutlined aria-hidden /> {msg.addCondition}
      </button>
    </Dropdown>
  )
}
