import { describe, expect, test } from '@jest/globals'
import { linesApart } from './linesApart'

const line = (id: string, source: string) => ({ id, source })

describe('a folio that came back', () => {
  const mine = [line('line-001', 'a = 1'), line('line-002', 'b = 2'), line('line-003', 'a + b')]

  test('with the same lines has nothing to tell', () => {
    expect(linesApart(mine, mine)).toEqual([])
  })

  test('tells what was changed, what is new and where it belongs, and what is gone', () => {
    const theirs = [
      line('line-001', 'a = 5'),
      line('fresh-01', 'c = 3'),
      line('line-003', 'a + b'),
      { source: '# end' },
    ]
    expect(linesApart(mine, theirs)).toEqual([
      { key: 'line-001', number: 1, id: 'line-001', mine: 'a = 1', theirs: 'a = 5', note: false },
      { key: 'line-002', number: 2, id: 'line-002', mine: 'b = 2', theirs: null, note: false },
      { key: 'new 1', number: 1, id: null, mine: null, theirs: 'c = 3', note: false },
      { key: 'new 3', number: 3, id: null, mine: null, theirs: '# end', note: false },
    ])
  })

  test('a line that became a note differs, too', () => {
    expect(linesApart(mine.slice(0, 1), [{ ...line('line-001', 'a = 1'), note: true }])).toHaveLength(1)
  })
})
