import type { Code, ProblemData } from '../values/problemData'

/** The sentence of each code, from what its problem has to say. */
export type Sentences = { readonly [C in Code]: (data: Readonly<ProblemData[C]>) => string }

/** Those of some codes. */
export type SentencesOf = Partial<Sentences>
