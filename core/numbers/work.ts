/**
 * The clock of the line that is being evaluated, asked by every loop that can be long. Loops of numbers know
 * nothing of lines, and a line cannot be left from their midst by a value: this is the one place where something
 * is thrown, and {@link onTheClock} the one where it is caught.
 */

/** Elementary operations between two looks at the clock: about a millisecond. */
const OPERATIONS_PER_LOOK = 500_000

export class OutOfTime extends Error {
  constructor() {
    super('a line has used up its time')
  }
}

export interface Clock {
  /** False once the time is used up. */
  goesOn(): boolean
}

let clock: Clock | null = null
let left = OPERATIONS_PER_LOOK

/** Told of about so many elementary operations to come. */
export function work(operations: number): void {
  left -= operations
  if (left <= 0) look()
}

function look(): void {
  left = OPERATIONS_PER_LOOK
  if (clock?.goesOn() === false) throw new OutOfTime()
}

/** Runs a calculation, which is left once its time is used up. */
export function onTheClock<T>(its: Clock, run: () => T): T | 'late' {
  const before = clock
  clock = its
  try {
    return run()
  } catch (error) {
    if (error instanceof OutOfTime) return 'late'
    throw error
  } finally {
    clock = before
  }
}
