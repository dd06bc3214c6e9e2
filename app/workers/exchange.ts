import { guessTable } from '#core/exchange/csv'
import type { TableGuess, TableReading } from '#core/exchange/csv'
import type { Dialect } from '#core/exchange/dialect'
import { decode } from '#core/exchange/encoding'
import { openFile } from '#core/exchange/open'
import type { Opened } from '#core/exchange/open'
import type { Fault } from '#core/exchange/told'
import { arrivals } from '~/keeping/arrivals'
import type { Arrived } from '~/keeping/arrivals'

/** Reads files away from the page: it stays alive, and reading can be stopped. */
export class ExchangeService {
  constructor(private readonly report?: (done: number, total: number) => void) {}

  open(bytes: Uint8Array, name: string, reading?: TableReading): Opened | Fault {
    return openFile(bytes, name, { reading, report: this.report })
  }

  /** Every folio in a file of any kind, `data` where it holds data, or why there is none. */
  arrivals(bytes: Uint8Array, name: string): readonly Arrived[] | string {
    return arrivals(bytes, name)
  }

  /** How a table of text would be read with these separators. */
  guess(bytes: Uint8Array, chosen: Dialect): TableGuess | Fault {
    const decoded = decode(bytes)
    return decoded.kind === 'fault' ? decoded : guessTable(decoded.text, chosen)
  }
}
