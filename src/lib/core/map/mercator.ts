/** Places on the earth drawn flat, and how far they are apart. Degrees are of WGS 84. */

export interface Place {
	readonly latitude: number
	readonly longitude: number
}

/** On the whole world drawn flat: 0 to 1 from west to east, and from north to south. */
export interface Flat {
	readonly x: number
	readonly y: number
}

/** Where the world drawn flat is as high as it is wide. */
const MOST_LATITUDE = 85.0511287798

/** The mean radius of the earth in metres, as the IUGG has it (R1 of GRS 80). */
const EARTH_RADIUS = 6_371_008.8

const RADIANS = Math.PI / 180

/** Of a cell that holds a place: `50.3121, -4.1102`. */
export function readPlace(text: string): Place | undefined {
	const [latitude, longitude] = text.split(',').map(Number)
	if (latitude === undefined || longitude === undefined) return undefined
	return Number.isFinite(latitude) && Number.isFinite(longitude) ? { latitude, longitude } : undefined
}

/** By Mercator's projection of a sphere, as maps on the web are drawn (EPSG 3857); past 85° it ends. */
export function flatten({ latitude, longitude }: Place): Flat {
	const bounded = Math.min(Math.max(latitude, -MOST_LATITUDE), MOST_LATITUDE) * RADIANS
	return {
		x: longitude / 360 + 0.5,
		y: 0.5 - Math.log(Math.tan(Math.PI / 4 + bounded / 2)) / (2 * Math.PI)
	}
}

export function unflatten({ x, y }: Flat): Place {
	return {
		latitude: (2 * Math.atan(Math.exp((0.5 - y) * 2 * Math.PI)) - Math.PI / 2) / RADIANS,
		longitude: (x - 0.5) * 360
	}
}

/** Along the great circle, in metres, by the haversine formula. */
export function distance(from: Place, to: Place): number {
	const [down, across] = [to.latitude - from.latitude, to.longitude - from.longitude].map(
		(degrees) => Math.sin((degrees * RADIANS) / 2) ** 2
	)
	const part = (down ?? 0) + Math.cos(from.latitude * RADIANS) * Math.cos(to.latitude * RADIANS) * (across ?? 0)
	return 2 * EARTH_RADIUS * Math.asin(Math.min(1, Math.sqrt(part)))
}

/** How many metres the whole width of the world drawn flat is long at a latitude. */
export function widthAt(latitude: number): number {
	return 2 * Math.PI * EARTH_RADIUS * Math.cos(latitude * RADIANS)
}

/** As people say it: `40 m`, `1.2 km`, `34 km`. */
export function sayDistance(metres: number): string {
	if (metres < 995) return `${Math.round(metres / (metres < 100 ? 1 : 10)) * (metres < 100 ? 1 : 10)} m`
	return metres < 9_950 ? `${(metres / 1000).toFixed(1)} km` : `${Math.round(metres / 1000)} km`
}
