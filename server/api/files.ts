import { said } from '../../core/messages/said.ts'
import { createReadStream } from 'node:fs'
import { stat } from 'node:fs/promises'
import type { FastifyReply, FastifyRequest } from 'fastify'
import { notFound } from '../errors.ts'

/** Answers with a file, or the part of it that the browser asks for; video players seek by parts (RFC 9110, 14). */
export async function sendFile(
  file: string,
  type: string,
  request: FastifyRequest,
  reply: FastifyReply
): Promise<unknown> {
  const { size } = await stat(file).catch(() => {
    throw notFound(said('things.file'))
  })
  reply.header('accept-ranges', 'bytes').type(type)
  const m = /^bytes=(\d{0,15})-(\d{0,15})$/.exec(request.headers.range ?? '')
  if (!m || (m[1] === '' && m[2] === ''))
    return reply.header('content-length', size).send(createReadStream(file))
  const first = m[1] === '' ? Math.max(0, size - Number(m[2])) : Number(m[1])
  const last = m[1] === '' || m[2] === '' ? size - 1 : Math.min(Number(m[2]), size - 1)
  if (first >= size || first > last)
    return reply.status(416).header('content-range', `bytes */${size}`).send()
  reply
    .status(206)
    .header('content-range', `bytes ${first}-${last}/${size}`)
    .header('content-length', last - first + 1)
  return reply.send(createReadStream(file, { start: first, end: last }))
}
