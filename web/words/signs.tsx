import {
  CheckOutlined,
  ClockCircleOutlined,
  CloseOutlined,
  FolderOutlined,
  HistoryOutlined,
  MinusCircleOutlined,
  MinusOutlined
} from '@ant-design/icons'
import type { ReactNode } from 'react'

/** Signs before words. They are hidden from screen readers: the words beside them, or a label, say the same. */

export const Passed = (): ReactNode => <CheckOutlined className="sign" aria-hidden />
export const Failed = (): ReactNode => <CloseOutlined className="sign" aria-hidden />
export const Pending = (): ReactNode => <ClockCircleOutlined className="sign" aria-hidden />
export const Skipped = (): ReactNode => <MinusOutlined className="sign" aria-hidden />
export const Closed = (): ReactNode => <FolderOutlined className="sign" aria-hidden />
export const NotRun = (): ReactNode => <MinusCircleOutlined className="sign" aria-hidden />
export const OutOfDate = (): ReactNode => <HistoryOutlined className="sign" aria-hidden />

/** A trigger, in the shape that it has on the timeline. */
export const Flag = (): ReactNode => (
  <svg className="sign flag-sign" viewBox="0 0 16 16" aria-hidden="true">
    <path d="M2 1h13l-3.5 4.5 3.5 4.5H4v6H2z" />
  </svg>
)
