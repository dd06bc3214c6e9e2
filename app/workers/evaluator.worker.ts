import { expose } from 'comlink'
import { EvaluatorService } from './evaluator'

/** The evaluator on its own thread: a long line never holds up the page. */
expose(new EvaluatorService())
