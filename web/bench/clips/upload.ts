import { atSite } from '../../api/here.ts'
import { problemWords } from '../../../core/messages/errorWords.ts'
import { useCallback, useMemo, useRef, useState } from 'react'
import type { ClipView } from '../../../core/api.ts'
import { ApiError } from '../../../core/apiError.ts'
import { errorOf, unreachable } from '../../api/client.ts'

export interface Sending {
  name: string
  /** Of the file, 0 to 1. */
  share: number
}

export interface Upload {
  sending: Sending | null
  error: string | null
  send: (file: File) => void
  stop: () => void
  forget: () => void
}

/** Sends a file as it is, with its progress; fetch cannot tell that of what it sends. */
export function useUpload(camera: string, onSent: (clip: ClipView) => void): Upload {
  const [sending, setSending] = useState<Sending | null>(null)
  const [error, setError] = useState<string | null>(null)
  const request = useRef<XMLHttpRequest | null>(null)

  const send = useCallback(
    (file: File) => {
      const xhr = new XMLHttpRequest()
      request.current?.abort()
      request.current = xhr
      setError(null)
      setSending({ name: file.name, share: 0 })
      const fail = (problem: ApiError): void => {
        setSending(null)
        setError(problemWords(problem))
      }
      xhr.upload.onprogress = ({ loaded, total }) =>
        setSending({ name: file.name, share: total ? loaded / total : 0 })
      xhr.onload = () => {
        if (xhr.status !== 201) return fail(errorOf(xhr.status, xhr.responseText))
        setSending(null)
        onSent(JSON.parse(xhr.responseText) as ClipView)
      }
      xhr.onerror = () => fail(unreachable())
      xhr.onabort = () => setSending(null)
      xhr.open(
        'POST',
        atSite(
          `/cameras/${encodeURIComponent(camera)}/clips?name=${encodeURIComponent(file.name.slice(0, 120))}`
        )
      )
      xhr.setRequestHeader('content-type', 'application/octet-stream')
      xhr.send(file)
    },
    [camera, onSent]
  )
  const stop = useCallback(() => request.current?.abort(), [])
  const forget = useCallback(() => setError(null), [])
  return useMemo(
    () => ({ sending, error, send, stop, forget }),
    [sending, error, send, stop, forget]
  )
}
