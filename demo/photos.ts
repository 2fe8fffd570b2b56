/** Pictures for the demo, drawn by the program: a length of chain on the bottom, greener and rustier from one to the next. */
import { createHash } from 'node:crypto'
import { mkdirSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { PNG } from 'pngjs'
import { noteAppFile } from '../src/lib/server/apps/app-files.ts'
import { noteUpload } from '../src/lib/server/rows/uploads.ts'
import type { Store } from '../src/lib/server/store/store.ts'
import type { Random } from './random.ts'

const WIDE = 480
const HIGH = 320

type Colour = readonly [red: number, green: number, blue: number]

/** A chain under water: `worn` from 0 (new) to 1. */
export function drawChain(random: Random, worn: number): Buffer {
	const picture = new PNG({ width: WIDE, height: HIGH })
	const links = 7
	const slope = random.next() * 0.5 - 0.25
	for (let y = 0; y < HIGH; y++) {
		for (let x = 0; x < WIDE; x++) {
			const grain = random.next() * 14
			const light = 1 - y / (HIGH * 1.5)
			let colour: Colour = [28 * light + grain, 82 * light + grain, 88 * light + grain]
			const along = (x / WIDE) * links
			const link = Math.floor(along)
			const middle = HIGH / 2 + slope * (x - WIDE / 2)
			// Every second link is seen from its edge.
			const height = link % 2 === 0 ? 46 : 13
			const across = (along - link - 0.5) * 2.3
			const ring = across ** 2 + ((y - middle) / height) ** 2
			const hollow = link % 2 === 0 ? (across / 0.62) ** 2 + ((y - middle) / 21) ** 2 : 2
			if (ring < 1 && hollow > 1) {
				const shade = 150 - (y - middle) * 1.3 - grain
				colour = [shade * (0.75 + worn * 0.3), shade * (0.78 - worn * 0.28), shade * (0.8 - worn * 0.5)]
			}
			const at = (y * WIDE + x) * 4
			for (const [i, part] of colour.entries()) picture.data[at + i] = Math.max(0, Math.min(255, part))
			picture.data[at + 3] = 255
		}
	}
	return PNG.sync.write(picture)
}

/** Two pontoons from above, boats on both sides of each. */
export function drawPontoons(random: Random): Buffer {
	const [wide, high] = [960, 480]
	const picture = new PNG({ width: wide, height: high })
	const boats = Array.from({ length: 22 }, (_each, i) => ({
		x: 90 + (i % 11) * 80 + random.below(12),
		y: i < 11 ? 120 : 330,
		half: 34 + random.below(16),
		isUp: random.chance(0.5),
		there: random.chance(0.7)
	}))
	for (let y = 0; y < high; y++) {
		for (let x = 0; x < wide; x++) {
			const ripple = Math.sin(x / 31 + Math.sin(y / 17) * 2) * 5 + random.next() * 6
			let colour: Colour = [58 + ripple, 104 + ripple, 120 + ripple]
			const isPlank = [160, 370].some((at) => Math.abs(y - at - 10) < 9)
			const isFinger = (x - 50) % 80 < 5 && [160, 370].some((at) => Math.abs(y - at - 10) < 62)
			if (isPlank || isFinger) colour = [176 - (x % 9), 160 - (x % 9), 128 - (x % 9)]
			for (const { x: at, y: middle, half, isUp, there } of boats) {
				const along = ((y - middle + 10) / half) * (isUp ? 1 : -1)
				const beam = 15 * Math.sqrt(Math.max(0, along < 0 ? 1 - along ** 2 : 1 - along ** 6))
				if (there && Math.abs(along) < 1 && Math.abs(x - at) < beam)
					colour = Math.abs(x - at) < beam - 4 ? [236, 233, 222] : [52, 66, 74]
			}
			const pixel = (y * wide + x) * 4
			for (const [i, part] of colour.entries()) picture.data[pixel + i] = Math.max(0, Math.min(255, part))
			picture.data[pixel + 3] = 255
		}
	}
	return PNG.sync.write(picture)
}

/** A name written by hand, near enough: a few swings of a pen, other ones for each seed. */
export function drawSignature(random: Random): Buffer {
	const picture = new PNG({ width: 360, height: 110 })
	const swings = Array.from({ length: 5 }, () => ({ turn: 0.03 + random.next() * 0.12, reach: 6 + random.next() * 17 }))
	for (let step = 0; step < 6000; step++) {
		const x = 20 + (step / 6000) * 320
		const y = swings.reduce((sum, { turn, reach }, i) => sum + Math.sin(x * turn + i) * reach * 0.55, 55)
		for (let dy = -1; dy <= 1; dy++) {
			const at = (Math.round(y + dy) * 360 + Math.round(x + Math.sin(step / 90) * 9)) * 4
			if (at < 0 || at >= picture.data.length) continue
			picture.data.set([22, 32, 27, 255], at)
		}
	}
	return PNG.sync.write(picture)
}

interface Giving {
	readonly folder: string
	readonly column: number
	readonly person: number
	readonly name: string
	readonly body: Buffer
	readonly now: number
}

/** Lays a file beside the workspace, for an app to show: a picture, if it says no other type. */
export function giveAppFile(
	store: Store,
	{ folder, person, name, body, now, type = 'image/png' }: Omit<Giving, 'column'> & { readonly type?: string }
): { readonly sha: string; readonly name: string } {
	const sha = lay(folder, body)
	noteAppFile(store, { sha, type, size: body.length, actor: { person }, now })
	return { sha, name }
}

/** Lays a picture beside the workspace and gives it in for a column; the token puts it into a cell. */
export function giveDemoFile(store: Store, { folder, column, person, name, body, now }: Giving): { file: string } {
	const sha = lay(folder, body)
	const token = `demo ${column} ${now} ${sha}`
	noteUpload(store, {
		token,
		file: { name, type: 'image/png', size: body.length, sha },
		column,
		actor: { person },
		now
	})
	return { file: token }
}

/** Under its digest, which is given. */
function lay(folder: string, body: Buffer): string {
	const sha = createHash('sha256').update(body).digest('hex')
	const path = join(folder, 'files', sha.slice(0, 2), sha)
	mkdirSync(dirname(path), { recursive: true, mode: 0o700 })
	writeFileSync(path, body, { mode: 0o600 })
	return sha
}
