/**
 * Twenty tables as instruments and programs write them, all made up: preambles, rows of units, decimal commas,
 * decibels with degrees, overloads, quoted heads, marks of thousands. With what is in them, worked out by hand.
 */
export interface InstrumentFile {
  readonly what: string
  readonly bytes: Uint8Array
  /** Names of the columns as they are taken up. */
  readonly names: readonly string[]
  readonly units: readonly string[]
  readonly rows: number
  /** A column, a row counted from 0, and the number there; of a complex one both parts. */
  readonly at: readonly (readonly [column: number, row: number, re: number, im?: number])[]
  readonly undefinedCells?: number
}

const utf8 = (text: string): Uint8Array => Uint8Array.from(Buffer.from(text, 'utf8'))
const latin1 = (text: string): Uint8Array => Uint8Array.from(Buffer.from(text, 'latin1'))
const utf16 = (text: string): Uint8Array => Uint8Array.from(Buffer.from(`\uFEFF${text}`, 'utf16le'))

export const INSTRUMENT_FILES: readonly InstrumentFile[] = [
  {
    what: 'plain, as it is written here',
    bytes: utf8('f / Hz,re(Z) / Ω,im(Z) / Ω\r\n100,1.5,-2\r\n200,1.25,-1\r\n400,1,0\r\n'),
    names: ['f', 'Z'],
    units: ['Hz', 'Ω'],
    rows: 3,
    at: [
      [0, 2, 400],
      [1, 0, 1.5, -2],
    ],
  },
  {
    what: 'semicolons, decimal commas, a row of units in square brackets',
    bytes: utf8('Frequency;|Z|;Phase\r\n[Hz];[Ohm];[deg]\r\n100,5;1,5;-90\r\n200,5;2,25;0\r\n'),
    names: ['Frequency', 'Z'],
    units: ['Hz', 'Ω'],
    rows: 2,
    at: [
      [0, 1, 200.5],
      [1, 0, 0, -1.5],
      [1, 1, 2.25, 0],
    ],
  },
  {
    what: 'a preamble with a stray quotation mark, decibels and degrees, an overload in words',
    bytes: utf8(
      'Analyzer X5\nModel: 5" probe\nDate,2026-11-26\n\n! Frequency (Hz),Gain (dB),Phase (deg)\n1.0E+02,-20,90\n2.0E+02,-40,OVLD\n4.0E+02,0,180\n',
    ),
    names: ['Frequency', 'Gain'],
    units: ['Hz', ''],
    rows: 3,
    at: [
      [1, 0, 0, 0.1],
      [1, 2, -1, 0],
    ],
    undefinedCells: 1,
  },
  {
    what: 'blanks between, no heads',
    bytes: utf8('  100   1.5   -2.0\n  200   1.25  -1.0\n  400   1.0    0.5\n'),
    names: ['column_1', 'column_2', 'column_3'],
    units: ['', '', ''],
    rows: 3,
    at: [[2, 2, 0.5]],
  },
  {
    what: 'tabs, heads with units after a comma, Latin-1 with a micro sign',
    bytes: latin1('Zeit, \u00b5s\tKanal 1, mV\tKanal 2, mV\n0\t1.5\t2.5\n1\t1.6\t2.4\n2\t1.7\t2.3\n'),
    names: ['Zeit', 'Kanal 1', 'Kanal 2'],
    units: ['µs', 'mV', 'mV'],
    rows: 3,
    at: [[2, 1, 2.4]],
  },
  {
    what: 'UTF-16 with tabs, from an office program',
    bytes: utf16('f (kHz)\tZ real (Ω)\tZ imag (Ω)\r\n1\t50\t0.5\r\n10\t49\t5\r\n100\t30\t-20\r\n'),
    names: ['f', 'Z'],
    units: ['kHz', 'Ω'],
    rows: 3,
    at: [[1, 2, 30, -20]],
  },
  {
    what: 'overloads as 9.9E37 and 9.91E37, a trailing separator',
    bytes: utf8('TIME,CH1,CH2,\n0.000,1.25E+00,9.9E+37,\n0.001,1.26E+00,-9.9E37,\n0.002,9.91E37,3.5E-01,\n'),
    names: ['TIME', 'CH1', 'CH2'],
    units: ['', '', ''],
    rows: 3,
    at: [[2, 2, 0.35]],
    undefinedCells: 3,
  },
  {
    what: 'quoted heads with commas and line breaks, numbers in quotes with marks of thousands',
    bytes: utf8('"Frequency\n(Hz)","Level, left"\n"1,000.5","2,000,000.25"\n"2,000.5","3.5"\n'),
    names: ['Frequency', 'Level, left'],
    units: ['Hz', ''],
    rows: 2,
    at: [
      [0, 0, 1000.5],
      [1, 0, 2000000.25],
    ],
  },
  {
    what: 'a time of day and a status in words beside the numbers',
    bytes: utf8(
      'Clock,t/s,U/V,Status\n12:00:01,0,5.01,ok\n12:00:02,1,5.02,ok\n12:00:03,2,----,range\n12:00:04,3,5.03,ok\n',
    ),
    names: ['t', 'U'],
    units: ['s', 'V'],
    rows: 4,
    at: [[1, 3, 5.03]],
    undefinedCells: 1,
  },
  {
    what: 'magnitude and phase in radians',
    bytes: utf8('omega [rad/s],mag [V],phase [rad]\n1,2,0\n10,1,-1.5707963267948966\n100,0.5,1.5707963267948966\n'),
    names: ['omega', 'V'],
    units: ['rad/s', 'V'],
    rows: 3,
    at: [[1, 0, 2, 0]],
  },
  {
    what: 'bars between, a line that names the separator first',
    bytes: utf8('sep=|\nn|x|y\n1|0.5|-0.5\n2|0.25|-0.25\n3|0.125|-0.125\n'),
    names: ['n', 'x', 'y'],
    units: ['', '', ''],
    rows: 3,
    at: [[2, 2, -0.125]],
  },
  {
    what: 'a mean below the table, blank lines between',
    bytes: utf8('t;u\n\n0;1,5\n1;1,6\n2;1,7\n\nMean;1,6\n'),
    names: ['t', 'u'],
    units: ['', ''],
    rows: 3,
    at: [[1, 2, 1.7]],
  },
  {
    what: 'heads behind a number sign, blanks between, exponents with D',
    bytes: utf8(
      '# run 7\n# f[Hz] Re(Z)[Ohm] Im(Z)[Ohm]\n1.0D+02 1.5D+00 -2.0D-01\n2.0D+02 1.4D+00 -1.0D-01\n3.0D+02 1.3D+00 0.0D+00\n',
    ),
    names: ['f', 'Z'],
    units: ['Hz', 'Ω'],
    rows: 3,
    at: [
      [0, 1, 200],
      [1, 0, 1.5, -0.2],
    ],
  },
  {
    what: 'two complex quantities, by parts and by decibels',
    bytes: utf8('f/Hz;Re Z/Ohm;Im Z/Ohm;|H|/dB;arg H/°\n10;1;2;-20;0\n20;3;4;0;90\n40;5;6;20;180\n'),
    names: ['f', 'Z', 'H'],
    units: ['Hz', 'Ω', ''],
    rows: 3,
    at: [
      [1, 1, 3, 4],
      [2, 1, 0, 1],
      [2, 2, -10, 0],
    ],
  },
  {
    what: 'a frequency that falls, one of them twice',
    bytes: utf8('f,Z\n400,1\n200,2\n200,2.5\n100,4\n'),
    names: ['f', 'Z'],
    units: ['', ''],
    rows: 4,
    at: [[1, 2, 2.5]],
  },
  {
    what: 'not a number in three words, ∞ as an overload, empty cells',
    bytes: utf8('x,y\n1,NaN\n2,#N/A\n3,\n4,inf\n5,1.5\n'),
    names: ['x', 'y'],
    units: ['', ''],
    rows: 5,
    at: [[1, 4, 1.5]],
    undefinedCells: 4,
  },
  {
    what: 'a long preamble in pairs, then a table of more columns',
    bytes: utf8(
      'Instrument,Bridge\nSerial,12345\nLevel,1.0\nPoints,3\nFrequency,Cs,Rs\nHz,F,Ohm\n1000,1.01E-07,0.52\n10000,1.00E-07,0.31\n100000,9.9E-08,0.25\n',
    ),
    names: ['Frequency', 'Cs', 'Rs'],
    units: ['Hz', 'F', 'Ω'],
    rows: 3,
    at: [
      [1, 2, 9.9e-8],
      [2, 0, 0.52],
    ],
  },
  {
    what: 'typeset minus signs and degrees behind the phase',
    bytes: utf8('f in Hz;G in dB;φ in °\n10;−3;−45\n100;−20;−90\n'),
    names: ['f', 'G'],
    units: ['Hz', ''],
    rows: 2,
    at: [[1, 1, 0, -0.1]],
  },
  {
    what: 'line breaks of one kind only (CR), as old instruments have them',
    bytes: utf8('t,v\r0,1\r1,2\r2,4\r'),
    names: ['t', 'v'],
    units: ['', ''],
    rows: 3,
    at: [[1, 2, 4]],
  },
  {
    what: 'a byte order mark, blanks after separators, heads in words',
    bytes: utf8(
      '\uFEFFFrequency (Hz), Impedance magnitude (Ohm), Impedance phase (deg)\n 50, 10, 60\n 60, 10, 90\n 70, 10, -60\n',
    ),
    names: ['Frequency', 'Impedance'],
    units: ['Hz', 'Ω'],
    rows: 3,
    at: [
      [1, 1, 0, 10],
      [1, 0, 5, 8.660254037844386],
    ],
  },
]
