import './face.css'
import { InputNumber, Radio } from 'antd'
import type { ReactNode } from 'react'
import type { FaceDetection } from '../../../core/kinds/face/schema.ts'
import { SavedText, tryEdit, type EditorProps } from '../editors.tsx'

export function FaceFrameEditor({ detection, document }: EditorProps<FaceDetection>): ReactNode {
  const side = (key: 'w' | 'h', name: string): ReactNode => (
    <InputNumber
      aria-label={`Smallest face, ${name}`}
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
          'Change the smallest face'
        )
      }
    />
  )
  return (
    <>
      <div className="row size-frame-row">
        {side('w', 'width')}
        {side('h', 'height')}
      </div>
      <p className="quiet">
        The dashed frame on the picture; drag its corner. Smaller faces do not count.
      </p>
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
          { value: 'any', label: 'With or without a mask' },
          { value: 'with', label: 'With a mask' },
          { value: 'without', label: 'Without a mask' }
        ]}
        onChange={(e) =>
          document.edit(
            { ...detection, mask: e.target.value as FaceDetection['mask'] },
            'Change the mask condition'
          )
        }
      />
      <p className="quiet">Where it cannot be told, only “with or without” counts.</p>
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
          { value: 'any', label: 'Whoever it is' },
          { value: 'listed', label: 'Somebody on the list' },
          { value: 'notListed', label: 'Anybody not on the list' }
        ]}
        onChange={(e) =>
          document.edit(
            { ...detection, list: e.target.value as FaceDetection['list'] },
            'Change the list condition'
          )
        }
      />
      <SavedText
        label="Names on the list, separated by commas"
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
            'Change the list of faces'
          )
        }
      />
      <p className="quiet">
        Who somebody is comes from the camera; footage alone does not tell it.
      </p>
    </>
  )
}
