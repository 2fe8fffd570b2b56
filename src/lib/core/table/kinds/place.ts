import { textKind } from './texts.ts'

const PAIR = /^(-?\d{1,3}(?:\.\d+)?)\s*[,; ]\s*(-?\d{1,3}(?:\.\d+)?)$/

/** Latitude, then longitude, in degrees (WGS 84), kept as "50.3121, -4.1102". */
export const place = textKind({
	name: 'place',
	max: 60,
	normalize: (value) => {
		const match = PAIR.exec(value)
		if (!match) return undefined
		const latitude = Number(match[1])
		const longitude = Number(match[2])
		return Math.abs(latitude) <= 90 && Math.abs(longitude) <= 180 ? `${match[1]}, ${match[2]}` : undefined
	},
	remedy: (value) => `"${value}" is no place. Write latitude and longitude in degrees: 50.3121, -4.1102.`
})
