/** A picture in place of a photo, in the Lookout at a desk: it says what it stands for. */
const [WIDE, HIGH] = [960, 720]

export async function drawStandIn(what: string): Promise<File> {
	const canvas = document.createElement('canvas')
	canvas.width = WIDE
	canvas.height = HIGH
	const ink = canvas.getContext('2d')
	if (ink) {
		ink.fillStyle = '#2f5f6b'
		ink.fillRect(0, 0, WIDE, HIGH)
		ink.fillStyle = '#26505b'
		for (let y = 0; y < HIGH; y += 48) ink.fillRect(0, y, WIDE, 20)
		ink.fillStyle = '#fbfbf7'
		ink.font = '600 44px sans-serif'
		ink.textAlign = 'center'
		ink.fillText('Stand-in for a photo', WIDE / 2, HIGH / 2 - 10)
		ink.font = '32px sans-serif'
		ink.fillText(what.slice(0, 40), WIDE / 2, HIGH / 2 + 48)
	}
	const body = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'))
	return new File(body ? [body] : [], 'stand-in.png', { type: 'image/png' })
}
