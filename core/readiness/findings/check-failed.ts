import { said } from '../../messages/said.ts'
import { ofDetection, perDetection } from '../facts.ts'

const MAX_NAMED = 3

export const checkFailed = perDetection('check-failed', (d, camera) => {
  const proof = camera.proofs.get(d.id)
  if (!proof?.failed) return []
  return ofDetection(
    'blocking',
    'proven',
    camera,
    d,
    said(
      'readiness.checkFailed',
      d.name,
      proof.failed,
      proof.failing.slice(0, MAX_NAMED),
      proof.failing.length - MAX_NAMED
    ),
    {
      does: 'go',
      words: said('readiness.seeWhy'),
      to: `/prove?camera=${camera.id}&detection=${d.id}&show=failed`
    }
  )
})
