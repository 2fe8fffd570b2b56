import { copyFileSync, existsSync, mkdirSync, readdirSync } from 'node:fs'
import { join } from 'node:path'

/** Copies the files of cells that are not there yet. A name says what is in it, so one that is there need not be copied. */
export function copyFiles(from: string, to: string): void {
	if (!existsSync(from)) return
	for (const group of readdirSync(from).filter((name) => /^[0-9a-f]{2}$/.test(name))) {
		mkdirSync(join(to, group), { recursive: true, mode: 0o700 })
		for (const name of readdirSync(join(from, group))) {
			const place = join(to, group, name)
			if (!existsSync(place)) copyFileSync(join(from, group, name), place)
		}
	}
}
