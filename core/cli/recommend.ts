import { usage as usages } from '../messages/en/usage.ts'
import { said } from '../messages/said.ts'
import { wordsOf } from '../messages/words.ts'
import { recommend } from '../tuning/recommend/recommend.ts'
import { runCommand } from './options.ts'
import { readTuning } from './tuningInputs.ts'

/** The progress is said again when it has grown by so much, and only to who looks on. */
const SAID_EACH = 0.05

await runCommand((args) => {
  const inputs = readTuning(args, usages.recommend, [])
  if (!inputs) return
  let shown = 0
  const { settings, ignore, kept, wanted, gone, nuisances, unmarked, leftOut, reason } = recommend({
    ...inputs,
    progress: (share) => {
      if (!process.stderr.isTTY || share < shown + SAID_EACH) return
      shown = share
      process.stderr.write(`\r${wordsOf(said('cli.looking', share))} `)
    }
  })
  if (shown > 0) process.stderr.write('\n')
  process.stdout.write(
    `${JSON.stringify({
      settings,
      ignore,
      kept,
      wanted,
      gone,
      nuisances,
      unmarked,
      leftOut,
      reason: wordsOf(reason)
    })}\n`
  )
})
