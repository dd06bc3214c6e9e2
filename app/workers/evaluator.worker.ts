import { expose } from 'comlink'
import { EvaluatorService } from './evaluator'

/** Least time between two words on how far a long line has come, in milliseconds. */
const INTERVAL = 120

/** The evaluator on its own thread: a long line never holds up the page. */
let told = 0
expose(
  new EvaluatorService(
    (done, total) => {
      const now = performance.now()
      if (now - told < INTERVAL) return
      told = now
      // Beside Comlink's own messages, which all have an identifier.
      self.postMessage({ progress: done / total })
    },
    (line) => self.postMessage({ line }),
  ),
)
