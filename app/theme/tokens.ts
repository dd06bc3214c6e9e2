/**
 * The colours of both themes, as pairs of one token. Text tokens keep 4.5:1 and
 * marks that carry meaning 3:1 against every ground; `tokens.test.ts` proves it.
 */
export interface Theme {
  /** Grounds. */
  readonly paper: string
  readonly leaf: string
  readonly rail: string
  /** Text. */
  readonly ink: string
  readonly quiet: string
  readonly teal: string
  readonly brassText: string
  readonly error: string
  readonly pass: string
  /** Text on a filled teal control. */
  readonly onTeal: string
  /** Rules and ornaments: `rule` only decorates, `brass` and `edge` carry meaning. */
  readonly rule: string
  readonly brass: string
  readonly edge: string
  readonly grid: string
  readonly select: string
  /** The eight hues of values. */
  readonly hues: readonly [string, string, string, string, string, string, string, string]
}

export const DAY: Theme = {
  paper: '#FBF7EE',
  leaf: '#FFFDF7',
  rail: '#F4ECD9',
  ink: '#1D2B3A',
  quiet: '#545F69',
  teal: '#0B6262',
  brassText: '#765410',
  error: '#A3272B',
  pass: '#2B6436',
  onTeal: '#FFFDF7',
  rule: '#E0D4B6',
  brass: '#A07418',
  edge: '#8C7A4E',
  grid: '#E6DCC3',
  select: '#CFE5DF',
  hues: ['#0E6E6E', '#B4451B', '#6A3FA3', '#86610C', '#3B7A2C', '#245FB0', '#9A2A66', '#4D5A68'],
}

export const NIGHT: Theme = {
  paper: '#131C26',
  leaf: '#18232F',
  rail: '#1B2733',
  ink: '#F1E9D8',
  quiet: '#AEB5B4',
  teal: '#6CCBC2',
  brassText: '#DDB964',
  error: '#F59A94',
  pass: '#8FD09A',
  onTeal: '#10202A',
  rule: '#33414E',
  brass: '#BE973F',
  edge: '#7F8B92',
  grid: '#2A3845',
  select: '#24484C',
  hues: ['#5CC9C0', '#F28C62', '#B99BEF', '#E0B653', '#8CCB7C', '#84B4F4', '#EE8DC2', '#B9C3CC'],
}

export const THEMES = { day: DAY, night: NIGHT } as const
export type ThemeName = keyof typeof THEMES

/** The tokens as custom properties: `--ink`, `--brass-text`, `--hue-1` … `--hue-8`. */
export function customProperties(theme: Theme): Record<string, string> {
  const properties: Record<string, string> = {}
  for (const [name, value] of Object.entries(theme)) {
    if (typeof value === 'string') properties[`--${name.replace(/[A-Z]/g, (c) => `-${c.toLowerCase()}`)}`] = value
  }
  theme.hues.forEach((hue, k) => {
    properties[`--hue-${k + 1}`] = hue
  })
  return properties
}
