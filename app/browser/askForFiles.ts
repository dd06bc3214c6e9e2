/** Asks for a file by the browser's own dialog. */
export function askForFiles(several = false): Promise<readonly File[]> {
  return new Promise((done) => {
    const input = document.createElement('input')
    input.type = 'file'
    input.multiple = several
    input.addEventListener('change', () => done([...(input.files ?? [])]))
    input.addEventListener('cancel', () => done([]))
    input.click()
  })
}
