import { openDatabase } from './database'

/** Opens (and upgrades) a data file and ends: a process of its own, so that tests can kill it on the way. */
const [, , file] = process.argv
process.stdout.write('begun\n')
if (file !== undefined) await (await openDatabase(file)).close()
