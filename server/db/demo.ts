import type { FolioFile } from '../../shared/folio'
import type { Folios } from './folios'

/** Folios that an empty shelf starts with: the story of Skerry Light, all figures made up. */
export const DEMO_FOLIOS: readonly FolioFile[] = [
  {
    title: 'Lamp circuit',
    conventions: { place: 'before' },
    lines: [
      {
        source:
          '## The lamp of Skerry Light\nA lamp with its choke, $Z_lamp = R + j*w*L$, fed over the shore cable; a capacitor across both takes up the lagging current.',
        note: true as const,
      },
      'V = 12∠0°  # supply, in volts',
      'w = 2pi*50',
      'Z_lamp = 2.4 + j*w*10m  # lamp in series with its choke',
      'Z_cap = 1/(j*w*470u)  # capacitor across both',
      'Z = Z_lamp || Z_cap',
      'I_lamp = V/Z_lamp',
      'I_cap = V/Z_cap',
      'I = I_lamp + I_cap',
      '|I|',
      'arg(I)',
      '|I| ~~ 1.95  # by hand: 1.95 A',
      '# How much of the voltage reaches the lamp',
      'Z_cable = 0.6 + 0.5j',
      'U_lamp = V*Z/(Z + Z_cable)  # voltage division',
      '# What it takes and what it gives',
      'V*conj(I)  # complex power, in volt-amperes',
      'P = re(V*conj(I))',
      'Q = im(V*conj(I))',
      'cos(arg(V*conj(I)))  # power factor',
      '# How lines are read',
      'part = 0.1 + 0.2  # kept exactly, as 3/10',
      'bearing = 36°52\'12"  # to the harbour light',
      'cos(60)  # a bare number, read in degrees here',
      'loss = 1/2k  # one half, or one over two thousand?',
      'sum(1/n for n = 1 to 6)  # the first six flashes',
      'turns = everyroot(1, 3)  # the three lenses of the lamp',
    ].map((line) => (typeof line === 'string' ? { source: line } : line)),
  },
]

export async function seedEmptyShelf(folios: Folios): Promise<void> {
  if ((await folios.count()) > 0) return
  for (const file of DEMO_FOLIOS) await folios.create(file)
}
