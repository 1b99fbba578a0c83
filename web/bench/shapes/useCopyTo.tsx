import { common } from '../../../core/messages/en/common.ts'
import { problemWords } from '../../../core/messages/errorWords.ts'
import { useCopyTo as msg } from '../../../core/messages/en/bench/shapes.ts'
import { App } from 'antd'
import type { CameraSummary } from '../../../core/api.ts'
import type { Detection } from '../../../core/formats/plan.ts'
import type { CameraPose } from '../../../core/scene/camera.ts'
import { useStable } from '../../stable.ts'
import { copyTo } from './copyTo.ts'

/** Copies a detection to another camera, and offers to take that back. */
export function useCopyTo(
  chosen: Detection | null,
  pose: CameraPose | null,
  say: (problem: string) => void
): (camera: CameraSummary) => void {
  const { notification } = App.useApp()
  const copy = async (camera: CameraSummary): Promise<void> => {
    if (!chosen) return
    try {
      const { said, takeBack } = await copyTo(camera, chosen, pose)
      notification.success({
        title: `${said}.`,
        actions: (
          <button
            type="button"
            className="link-button"
            onClick={() =>
              void takeBack().then(
                () => notification.success({ title: msg.undone }),
                (error: Error) => say(problemWords(error))
              )
            }
          >
            {common.undo}
          </button>
        )
      })
    } catch (error) {
      say(problemWords(error))
    }
  }
  return useStable((camera: CameraSummary) => void copy(camera))
}
