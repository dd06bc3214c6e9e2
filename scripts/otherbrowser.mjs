import { existsSync, readFileSync } from 'node:fs'
import { bin, ensureBuild, ensureChromium, ensurePackages, fail, run } from './lib.mjs'

/** The main job in Firefox, alone; npm test has it, too, where Firefox is installed. */
const { firefox: FIREFOX } = JSON.parse(readFileSync(new URL('browsers.json', import.meta.url), 'utf8'))
if (!existsSync(FIREFOX))
  fail(`The other browser is Firefox at ${FIREFOX}. Install it (on Debian: apt-get install firefox-esr) and run this again.`) // prettier-ignore
ensurePackages()
ensureChromium()
ensureBuild()
process.exit(run(process.execPath, [bin('playwright'), 'test', 'otherbrowser', '--workers=1', '--reporter=list']))
