import { version } from '../../package.json'
import { useDoor } from '../utils/access'
import { defineApi } from '../utils/api'
import { isHandingOver, presentPort } from '../utils/handingOver'

/** Which program answers here, and whether it asks for a passphrase; at a port that it had before, where it is now. */
export default defineApi(async (event) => ({
  program: 'ornate-phasor',
  version,
  passphrase: useDoor() !== null,
  ...(isHandingOver(event) ? { port: presentPort() } : {}),
}))
