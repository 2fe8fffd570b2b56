/** A chart as a file that can be put into a letter. */
import { HEIGHT, WIDTH } from './svg-parts.ts'

/** Hands a file of it to whoever presses. */
export async function takePicture(title: string, svg: string, format: 'SVG' | 'PNG'): Promise<void> {
	const link = document.createElement('a')
	const file = format === 'SVG' ? new Blob([svg], { type: 'image/svg+xml' }) : await asPng(svg)
	link.href = URL.createObjectURL(file)
	link.download = `${title}.${format.toLowerCase()}`
	link.click()
	URL.revokeObjectURL(link.href)
}

/** Drawn twice as fine as the screen. */
async function asPng(svg: string): Promise<Blob> {
	const picture = new Image()
	// As a data address: the policy of pages lets pictures come from no other place that a script makes.
	picture.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`
	await picture.decode()
	const canvas = new OffscreenCanvas(2 * WIDTH, 2 * HEIGHT)
	canvas.getContext('2d')?.drawImage(picture, 0, 0, 2 * WIDTH, 2 * HEIGHT)
	return canvas.convertToBlob({ type: 'image/png' })
}
