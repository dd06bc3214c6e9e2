/** The name under which a column is taken up: `lamp.f`. Letters, digits and underscores; no name comes twice. */
export function partNames(columns: readonly { readonly name: string }[]): readonly string[] {
  const names: string[] = []
  columns.forEach(({ name }, k) => {
    const plain = name
      .normalize('NFKD')
      .replace(/[\u0300-\u036f]/g, '')
      .replace(/[µμ]/g, 'u')
      .replace(/[^A-Za-z0-9_\u0370-\u03ff]+/g, '_')
      .replace(/^_+|_+$/g, '')
    const stem = plain === '' ? `column_${k + 1}` : /^\d/.test(plain) ? `c${plain}` : plain
    let found = stem
    for (let n = 2; names.includes(found); n += 1) found = `${stem}_${n}`
    names.push(found)
  })
  return names
}
