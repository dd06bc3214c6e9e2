/** How a call is typeset where it is not its name with its arguments in brackets; in LaTeX. */
export type Typesetting =
  /** What stands before and behind its first argument; a radical may take a second one as its index. */
  | { readonly as: 'enclosed'; readonly before: string; readonly after: string }
  | { readonly as: 'indexed radical' }
  /** A large sign with limits over a row of values. */
  | { readonly as: 'large sign'; readonly sign: string }
  /** A word between its two arguments. */
  | { readonly as: 'word between'; readonly word: string }

/** The typesetting of a function of the notation; `undefined` where it is the usual one. */
export type TypesettingOf = (name: string) => Typesetting | undefined
