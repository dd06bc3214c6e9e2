import { readTouchstone } from '../../core/exchange/touchstone'
import { describe, numbersOf } from '../../shared/enclosure'
import type { Enclosure } from '../../shared/enclosure'

/** The cable of Skerry Light as it was measured, all figures made up: the same as the samples that can be opened. */
export const SHORE_CABLE = `! Shore cable of Skerry Light, core to return, far end open
! measured at the switchboard; all figures made up
# Hz Z RI R 1
100 0.64332 0.29871
121.15 0.64744 0.36542
146.78 0.65081 0.4454
177.83 0.64983 0.5365
215.44 0.65625 0.64842
261.02 0.66121 0.78699
316.23 0.66321 0.9585
383.12 0.66629 1.1518
464.16 0.67765 1.3973
562.34 0.68211 1.6884
681.29 0.68201 2.0488
825.4 0.69177 2.4883
1000 0.68442 3.0051
1211.5 0.6899 3.6312
1467.8 0.72329 4.3969
1778.3 0.71445 5.3435
2154.4 0.70534 6.4517
2610.2 0.7616 7.8535
3162.3 0.76114 9.4705
3831.2 0.79897 11.501
4641.6 0.80155 14.005
5623.4 0.8304 17.035
6812.9 0.9142 20.81
8254 0.94743 25.483
10000 0.91767 31.578
12115 1.2051 39.606
14678 1.1521 50.35
17783 1.5685 66.507
21544 2.5618 92.019
26102 4.4109 143.19
31623 17.913 292.8
38312 4414.4 -1839.3
46416 15.248 -278.8
56234 4.3403 -138.6
68129 1.64 -89.852
82540 1.1203 -64.55
100000 0.58713 -48.917
121150 0.69149 -38.487
146780 0.3458 -30.497
177830 0.30954 -24.715
215440 0.28338 -20.17
261020 0.25609 -16.389
316230 0.18935 -13.481
383120 0.1501 -11.018
464160 0.11153 -9.1345
562340 0.064892 -7.5005
681290 0.066551 -6.1591
825400 0.08392 -5.0934
1000000 0.059413 -4.1891
`

const BLOCK = 'shore-cable-numbers'

/** What the demo folio encloses, and its numbers. */
export function shoreCable(): { readonly enclosure: Enclosure; readonly numbers: Uint8Array } {
  const read = readTouchstone(SHORE_CABLE, 1)
  if (read.kind === 'fault') throw new Error('the cable of the demonstration can be read')
  return { enclosure: describe('shore-cable.s1p', BLOCK, read.data), numbers: numbersOf(read.data) }
}
