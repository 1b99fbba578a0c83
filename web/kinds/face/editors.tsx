import { common } from '../../../core/messages/en/common.ts'
import { said } from '../../../core/messages/said.ts'
import { editors as msg } from '../../../core/messages/en/kinds/face.ts'
import './face.css'
import { InputNumber, Radio } from 'antd'
import type { ReactNode } from 'react'
import type { FaceDetection } from '../../../core/kinds/face/schema.ts'
import { SavedText, tryEdit, type EditorProps } from '../editors.tsx'

export function FaceFrameEditor({ detection, document }: EditorProps<FaceDetection>): ReactNode {
  const side = (key: 'w' | 'h', name: string): ReactNode => (
    <InputNumber
      aria-label={msg.smallestFace(name)}
      size="small"
      min={0.5}
      max={100}
      step={0.5}
      prefix={name}
      suffix="%"
      value={Math.round(detection.faceMin[key] * 1000) / 10}
      onChange={(v) =>
        v !== null &&
        document.edit(
          { ...detection, faceMin: { ...detection.faceMin, [key]: v / 100 } },
          said('edits.changeTheSmallestFace')
        )
      }
    />
  )
  return (
    <>
      <div className="row size-frame-row">
        {side('w', common.width)}
        {side('h', common.height)}
      </div>
      <p className="quiet">{msg.dashedFrame}</p>
    </>
  )
}

export function MaskEditor({ detection, document }: EditorProps<FaceDetection>): ReactNode {
  return (
    <>
      <Radio.Group
        vertical
        value={detection.mask}
        options={[
          { value: 'any', label: msg.withOrWithoutAMask },
          { value: 'with', label: msg.withAMask },
          { value: 'without', label: msg.withoutAMask }
        ]}
        onChange={(e) =>
          document.edit(
            { ...detection, mask: e.target.value as FaceDetection['mask'] },
            said('edits.changeTheMaskCondition')
          )
        }
      />
      <p className="quiet">{msg.aFaceWhoseMask}</p>
    </>
  )
}

export function ListEditor({ detection, document }: EditorProps<FaceDetection>): ReactNode {
  return (
    <>
      <Radio.Group
        vertical
        value={detection.list}
        options={[
          { value: 'any', label: msg.anyFace },
          { value: 'listed', label: msg.listed },
          { value: 'notListed', label: msg.notListed }
        ]}
        onChange={(e) =>
          document.edit(
            { ...detection, list: e.target.value as FaceDetection['list'] },
            said('edits.changeTheListCondition')
          )
        }
      />
      <SavedText
        label={msg.names}
        value={detection.faces.join(', ')}
        onKeep={(text) =>
          tryEdit(
            document,
            {
              ...detection,
              faces: text
                .split(',')
                .map((name) => name.trim())
                .filter(Boolean)
            },
            said('edits.changeTheListOfFaces')
          )
        }
      />
      <p className="quiet">{msg.fromTheCamera}</p>
    </>
  )
}
