/** What windows of one browser tell each other of the door: small, since every page listens. */

const DOOR = 'ornate-phasor:door'
/** They have so long to leave their folios, in milliseconds. */
const WINDOWS_LEAVE = 400

/** This window says it itself, and hears it, too: it still has to take away what the browser holds. */
let here = false

/** Says that this browser signs out, and waits until its other windows have gone to the door. */
export async function tellSignedOut(): Promise<void> {
  here = true
  const channel = new BroadcastChannel(DOOR)
  channel.postMessage('signed out')
  await new Promise((done) => setTimeout(done, WINDOWS_LEAVE))
  channel.close()
}

/** Another window of this browser has signed out. */
export function onSignedOut(action: () => void): void {
  new BroadcastChannel(DOOR).addEventListener('message', () => {
    if (!here) action()
  })
}
