/** Gives files in for a cell: photos made smaller first, drawings as they were drawn. */
import type { Attachment } from '$lib/core/capture/attachment.ts'
import { ask, type Sent } from '../send.ts'

/** The longer side of a photo as it is sent; enough to read a stamped number on a shackle, small enough for a quay. */
const LONG_SIDE = 2000
const SMALL_SIDE = 320

export interface Given {
	readonly token: string
	readonly file: Attachment
}

/** Hands a file over before the form is sent; the answer names it. */
export function giveFile(column: number, name: string, body: Blob): Promise<Sent<Given>> {
	const init = { method: 'PUT', body, headers: { 'content-type': 'application/octet-stream' } }
	return ask(`/files/${column}?name=${encodeURIComponent(name)}${inLookout()}`, init)
}

/** In the Lookout a file goes into the copy of the data, as whom it shows. */
function inLookout(): string {
	const [, token] = /^\/as\/([^/]+)/.exec(location.pathname) ?? []
	return token === undefined ? '' : `&as=${token}`
}

export interface ReadyPhoto {
	readonly name: string
	readonly body: Blob
	/** A small picture of it, as a data address. */
	readonly small: string
}

/**
 * A photo turned upright, made smaller and written anew, which leaves behind where and with what it was taken. Undefined
 * where the browser cannot draw it.
 */
export async function readyPhoto(file: File): Promise<ReadyPhoto | undefined> {
	const picture = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(() => undefined)
	if (!picture) return undefined
	const large = draw(picture, LONG_SIDE)
	const small = draw(picture, SMALL_SIDE).toDataURL('image/jpeg', 0.7)
	const body = await new Promise<Blob | null>((resolve) => large.toBlob(resolve, 'image/jpeg', 0.85))
	picture.close()
	return body ? { name: file.name.replace(/\.\w+$/, '') + '.jpg', body, small } : undefined
}

function draw(picture: ImageBitmap, longSide: number): HTMLCanvasElement {
	const scale = Math.min(1, longSide / Math.max(picture.width, picture.height))
	const canvas = document.createElement('canvas')
	canvas.width = Math.max(1, Math.round(picture.width * scale))
	canvas.height = Math.max(1, Math.round(picture.height * scale))
	canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height)
	return canvas
}

export function toDataAddress(body: Blob): Promise<string> {
	return new Promise((resolve, reject) => {
		const reader = new FileReader()
		reader.onload = () => resolve(String(reader.result))
		reader.onerror = () => reject(reader.error ?? new Error('Cannot read the file'))
		reader.readAsDataURL(body)
	})
}

/** Data addresses are not fetched: a strict page may connect to its own server only. */
export function fromDataAddress(address: string): Blob {
	const [head = '', body = ''] = address.split(',')
	const bytes = Uint8Array.from(atob(body), (sign) => sign.charCodeAt(0))
	return new Blob([bytes], { type: /^data:([^;]+)/.exec(head)?.[1] ?? 'application/octet-stream' })
}
