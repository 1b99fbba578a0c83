import type { AnalysisView } from '../lookBack/settings.ts'
import { lookBackForm as msg } from './en/site.ts'
import { wordsOf } from './words.ts'

/** How the analysis of a camera's pictures goes. */
export const analysisWords = ({ state, rate, why }: AnalysisView): string =>
  state === 'running'
    ? msg.analyses.running(rate ?? 0)
    : state === 'failed'
      ? msg.analyses.failed(why === null ? '' : wordsOf(why))
      : msg.analyses[state]
