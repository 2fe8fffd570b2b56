/**
 * `npm start`: starts the built server on a workspace of one's own. Where there is none it is made, and a link is printed
 * by which its first steward comes in; the link works once, for a day. HOST, PORT and ORIGIN say where it is reached.
 */
import { resolve } from 'node:path'
import { build, installPackages, run } from './ready.mjs'
import { serve } from './serve.mjs'

installPackages()
build()

const folder = resolve(process.env.TIN_SHED_DATA ?? 'var')
const { HOST: host, ORIGIN: origin } = process.env
const reached = await serve({ folder: prepared(folder), host, origin })
console.log(`Tin Shed is at ${reached}. Ctrl C stops it.`)

/** Prints the first steward's link before the server has the workspace open. */
function prepared(place) {
	const env = { ...process.env, TIN_SHED_DATA: place }
	if (run(process.execPath, ['build/threads/first-start.js'], { env }) !== 0) process.exit(1)
	return place
}
