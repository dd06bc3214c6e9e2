/** A function that runs once in the next frame, however often it is called before. */
export function onceAFrame(run: () => void): () => void {
  let asked = false
  return () => {
    if (asked) return
    asked = true
    requestAnimationFrame(() => {
      asked = false
      run()
    })
  }
}
