/** What windows of one browser tell each other of the door: small, since every page listens. */

const DOOR = 'ornate-phasor:door'
/** They have so long to leave their folios, in milliseconds. */
const WINDOWS_LEAVE = 400

/** Says that this browser signs out, and waits until its other windows have gone to the door. */
export async function tellSignedOut(): Promise<void> {
  const channel = new BroadcastChannel(DOOR)
  channel.postMessage('signed out')
  await new Promise((done) => setTimeout(done, WINDOWS_LEAVE))
  channel.close()
}

/** Another window of this browser has signed out. */
export function onSignedOut(action: () => void): void {
  new BroadcastChannel(DOOR).addEventListener('message', action)
}
