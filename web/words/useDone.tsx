import { App, Button } from 'antd'
import { useCallback } from 'react'
import { common } from '../../core/messages/en/common.ts'
import { problemWords } from '../../core/messages/errorWords.ts'

const SHOWN_SECONDS = 8
let said = 0

/**
 * Says that something is done, with a button that takes it back; where that fails, why stands in its place.
 *
 * @returns takes the words, and what takes it back; null: nothing does
 */
export function useDone(): (words: string, back: (() => Promise<unknown>) | null) => void {
  const { message } = App.useApp()
  return useCallback(
    (words, back) => {
      const key = `done-${said++}`
      const undo = (): void =>
        void back!().then(
          () => message.destroy(key),
          (problem: unknown) =>
            void message.open({ key, type: 'error', content: problemWords(problem) })
        )
      void message.open({
        key,
        type: 'success',
        duration: SHOWN_SECONDS,
        content: (
          <>
            {words}{' '}
            {back && (
              <Button size="small" onClick={undo}>
                {common.undo}
              </Button>
            )}
          </>
        )
      })
    },
    [message]
  )
}
