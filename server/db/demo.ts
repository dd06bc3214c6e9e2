import type { FolioFile } from '../../shared/folio'
import type { Folios } from './folios'

/** Folios that an empty shelf starts with: the story of Skerry Light, all figures made up. */
export const DEMO_FOLIOS: readonly FolioFile[] = [
  {
    title: 'Lamp circuit',
    conventions: { place: 'before' },
    lines: [
      '# Skerry Light: the lamp and its choke run from the shore cable',
      'V = 230∠0°  # supply at the lamp room, in volts',
      'f = 50',
      'w = 2pi*f',
      'Z_lamp = 47 + j*w*0.12  # lamp in series with its choke',
      'Z_cap = 1/(j*w*22u)  # capacitor across both',
      'Z = Z_lamp || Z_cap',
      'I_lamp = V/Z_lamp',
      'I_cap = V/Z_cap',
      'I = I_lamp + I_cap',
      '|I|',
      'arg(I)',
      '|I| ~~ 3.083  # by hand: 3.083 A',
      '# The cable: how much of the shore voltage reaches the lamp',
      'Z_cable = 1.8 + 0.6j',
      'U_lamp = V*Z/(Z + Z_cable)  # voltage division',
      'S = V*conj(I)  # complex power',
      'P = re(S)',
      'Q = im(S)',
      'cos(arg(S))  # power factor',
    ].map((source) => ({ source })),
  },
]

export async function seedEmptyShelf(folios: Folios): Promise<void> {
  if ((await folios.count()) > 0) return
  for (const file of DEMO_FOLIOS) await folios.create(file)
}
