/**
 * Pictures and films that builders give their apps. A picture is turned upright and made no larger than a screen needs, and
 * loses what a camera wrote into it, its place among that; a film is kept as it is, and so is the
 * ground of a map once it can be drawn.
 */
import { createHash } from 'node:crypto'
import { readFile, writeFile } from 'node:fs/promises'
import sharp from 'sharp'
import { AppError } from '$lib/core/app-error.ts'
import { PAINTS } from '$lib/core/app/app-icon.ts'
import { readOutlines } from '$lib/core/map/outline.ts'
import { isPicture, plainFileName } from '$lib/core/capture/attachment.ts'
import type { TakenAppFile } from '$lib/core/requests/app-files.ts'
import type { Threads } from '../threads/threads.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import { pathOf, receive, settle, type Received } from './incoming.ts'

/** In pixels, on its longer side: as much as a wide desk shows. */
const MOST_PIXELS = 1_600
/** A picture that unpacks to more is no picture for a screen. */
const MOST_UNPACKED = 60_000_000

const MOST_GROUND = 4_000_000

const FILMS: ReadonlySet<string> = new Set(['video/mp4', 'video/webm'])

export interface GivenAppFile {
	readonly kind: 'picture' | 'film' | 'ground'
	readonly name: string
	readonly body: ReadableStream<Uint8Array>
	readonly actor: Actor
}

/** Takes a file in; refused where it is not of its kind by what is in it. */
export async function takeAppFile(
	folder: string,
	host: Pick<Threads, 'write' | 'now'>,
	{ kind, name, body, actor }: GivenAppFile
): Promise<TakenAppFile> {
	return receive(folder, { name, body }, async (received) => {
		const { colour, ...file } = await TAKEN[kind](received)
		await settle(received.path, pathOf(folder, file.sha))
		await host.write('noteAppFile', { ...file, actor, now: host.now() })
		return { file: { sha: file.sha, name: plainFileName(name) }, colour }
	})
}

interface Kept {
	readonly sha: string
	readonly type: string
	readonly size: number
	readonly colour: TakenAppFile['colour']
}

const TAKEN = { picture: asPicture, film: asFilm, ground: asGround }

async function asGround({ path, sha, size }: Received): Promise<Kept> {
	if (size > MOST_GROUND)
		throw new AppError('invalid', 'This ground is larger than 4 MB. Simplify it first, or take a smaller part.')
	const read = readOutlines(await readFile(path, 'utf8'))
	if (!read.ok) throw new AppError('invalid', read.message)
	return { sha, size, type: 'application/geo+json', colour: null }
}

function asFilm({ sha, size, type }: Received): Kept {
	if (!FILMS.has(type)) throw new AppError('invalid', 'This is no film by its content. Choose an MP4 or a WebM file.')
	return { sha, size, type, colour: null }
}

async function asPicture({ path, type }: Received): Promise<Kept> {
	if (/hei[cf]/.test(type))
		throw new AppError('invalid', 'This is a HEIC picture, which browsers do not draw. Save it as JPEG first.')
	if (!isPicture(type) && type !== 'image/avif')
		throw new AppError('invalid', 'This is no picture by its content. Choose a JPEG, PNG, WebP, GIF or AVIF file.')
	const picture = sharp(path, { limitInputPixels: MOST_UNPACKED, failOn: 'error' }).rotate()
	const small = { width: MOST_PIXELS, height: MOST_PIXELS, fit: 'inside', withoutEnlargement: true } as const
	const made = await picture.clone().resize(small).webp({ quality: 84 }).toBuffer().catch(damaged)
	const { dominant } = await picture.clone().flatten({ background: '#fff' }).stats()
	await writeFile(path, made)
	const sha = createHash('sha256').update(made).digest('hex')
	return { sha, type: 'image/webp', size: made.length, colour: nearestPaint(dominant) }
}

function damaged(): never {
	throw new AppError('invalid', 'This picture is damaged, or far too large. Choose another.')
}

interface Rgb {
	readonly r: number
	readonly g: number
	readonly b: number
}

export interface IconAsked {
	readonly sha: string
	readonly colour: keyof typeof PAINTS
	/** In pixels, of its side. */
	readonly size: number
}

/** A picture as a square PNG on the app's paint, with a margin within which a phone may cut it round. */
export async function drawIcon(folder: string, { sha, colour, size }: IconAsked): Promise<Buffer> {
	const inner = Math.round(size * 0.8)
	const picture = await sharp(pathOf(folder, sha)).resize(inner, inner, { fit: 'cover' }).png().toBuffer()
	const ground = { width: size, height: size, channels: 3, background: PAINTS[colour] } as const
	return sharp({ create: ground })
		.composite([{ input: picture }])
		.png()
		.toBuffer()
}

/** The paint that goes with a colour, by hue as the eye tells them apart. */
function nearestPaint(colour: Rgb): TakenAppFile['colour'] {
	const paints = Object.entries(PAINTS) as [keyof typeof PAINTS, string][]
	const apart = ([, hex]: (typeof paints)[number]) => {
		const [r = 0, g = 0, b = 0] = [1, 3, 5].map((at) => Number.parseInt(hex.slice(at, at + 2), 16))
		const [one, other] = [chroma(colour), chroma({ r, g, b })]
		return (one.across - other.across) ** 2 + (one.down - other.down) ** 2
	}
	return paints.toSorted((one, other) => apart(one) - apart(other))[0]?.[0] ?? null
}

/** Colour without its lightness: the difference signals of ITU-R BT.601, from memory. */
function chroma({ r, g, b }: Rgb): { readonly across: number; readonly down: number } {
	return { across: -0.169 * r - 0.331 * g + 0.5 * b, down: 0.5 * r - 0.419 * g - 0.081 * b }
}
