/**
 * `npm run demo`: sets up what is missing, makes the demo workspace where there is none (`-- --fresh`: anew), starts the
 * built server on a free loopback port and says who can sign in. Ctrl C stops it cleanly.
 */
import { existsSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { build, installPackages, run } from './ready.mjs'
import { serve } from './serve.mjs'

installPackages()
build()

const folder = resolve(process.env.TIN_SHED_DATA ?? 'var')
if (process.argv.includes('--fresh') || !existsSync(join(folder, 'workspace.db'))) {
	console.log('Making the demo workspace…')
	if (run(process.execPath, ['build/threads/make-demo.js', folder]) !== 0) process.exit(1)
}
const origin = await serve({ folder })
console.log(`
Tin Shed, the demo of Varrow Sound Harbour Trust, is at ${origin}

Sign in as anybody: the sign-in page lists them all. By hand the password is "lantern on the quay", for instance
  saskia.holm@varrow.example        builder: the Bench
  imke.dahl@varrow.example          diver at Ness Hythe
  osric.vane@varrow.example         harbour master at Varrow Quay
  petra.nankivell@varrow.example    finance: requests wait on her
  ailith.brand@varrow.example       steward

The mooring register to bring in lies at ${join(folder, 'shared drive', 'Mooring register.xlsx')}
Ctrl C stops it.`)
