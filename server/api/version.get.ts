import { version } from '../../package.json'
import { useGate } from '../utils/access'
import { defineApi } from '../utils/api'

/** Which program answers here, and whether it asks for a passphrase. */
export default defineApi(async () => ({ program: 'ornate-phasor', version, passphrase: useGate() !== null }))
