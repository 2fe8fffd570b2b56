/** The ground of a map, as GeoJSON (RFC 7946) has it: areas, lines and what they are called. */
import { flatten, type Flat } from './mercator.ts'

export interface Outline {
	readonly kind: 'area' | 'line'
	/** What it is called by its property `name`; blank where it is not. */
	readonly name: string
	/** Whether it is water within the ground, by its property `water`. */
	readonly isWater: boolean
	/** Each a ring or a line of points on the world drawn flat. */
	readonly rings: readonly (readonly Flat[])[]
}

export type ReadOutlines =
	{ readonly ok: true; readonly outlines: readonly Outline[] } | { readonly ok: false; readonly message: string }

/** More points no page draws as it is moved. */
export const MOST_POINTS = 60_000

/** What can be drawn of a file; what is wrong with it, with its place, where it is none of GeoJSON or too much. */
export function readOutlines(text: string): ReadOutlines {
	let read: unknown
	try {
		read = JSON.parse(text)
	} catch {
		return refuse('This is no JSON. Choose a GeoJSON file.')
	}
	const outlines: Outline[] = []
	let points = 0
	for (const [at, feature] of featuresOf(read).entries()) {
		const place = `Feature ${at + 1}`
		const { geometry, properties } = feature
		for (const { kind, rings } of shapesOf(geometry)) {
			const flat: Flat[][] = []
			for (const ring of rings) {
				const line = flatRing(ring)
				if (typeof line === 'string') return refuse(`${place}: ${line}`)
				points += line.length
				if (points > MOST_POINTS)
					return refuse(
						`This ground has more than ${MOST_POINTS.toLocaleString('en')} points. Simplify it first, or take a smaller part.`
					)
				flat.push(line)
			}
			const { name, water } = properties
			outlines.push({
				kind,
				rings: flat,
				name: typeof name === 'string' ? name.slice(0, 80) : '',
				isWater: water === true
			})
		}
	}
	return outlines.length === 0
		? refuse('This file draws nothing: it holds no area and no line. Choose a GeoJSON file with polygons or lines.')
		: { ok: true, outlines }
}

function refuse(message: string): ReadOutlines {
	return { ok: false, message }
}

interface Feature {
	readonly geometry: unknown
	readonly properties: Readonly<Record<string, unknown>>
}

/** Of a collection, of one feature, or of a geometry alone. */
function featuresOf(read: unknown): Feature[] {
	if (!isObject(read)) return []
	// One within another is none by the standard, and could go on for ever.
	if (read['type'] === 'FeatureCollection')
		return Array.isArray(read['features']) ? read['features'].filter(isFeature).map(featureOf) : []
	if (isFeature(read)) return [featureOf(read)]
	return [{ geometry: read, properties: {} }]
}

function isFeature(read: unknown): read is Record<string, unknown> {
	return isObject(read) && read['type'] === 'Feature'
}

function featureOf({ geometry, properties }: Record<string, unknown>): Feature {
	return { geometry, properties: isObject(properties) ? properties : {} }
}

interface Shape {
	readonly kind: Outline['kind']
	readonly rings: readonly unknown[]
}

/** Points alone are no ground. */
function shapesOf(geometry: unknown): Shape[] {
	if (!isObject(geometry)) return []
	const { type, coordinates, geometries } = geometry
	if (type === 'GeometryCollection' && Array.isArray(geometries))
		return geometries.filter((each) => isObject(each) && each['type'] !== 'GeometryCollection').flatMap(shapesOf)
	if (!Array.isArray(coordinates)) return []
	if (type === 'Polygon') return [{ kind: 'area', rings: coordinates }]
	if (type === 'MultiPolygon')
		return coordinates.map((rings) => ({ kind: 'area', rings: Array.isArray(rings) ? rings : [] }))
	if (type === 'LineString') return [{ kind: 'line', rings: [coordinates] }]
	return type === 'MultiLineString' ? [{ kind: 'line', rings: coordinates }] : []
}

/** What is wrong with it, as a text. */
function flatRing(ring: unknown): Flat[] | string {
	if (!Array.isArray(ring)) return 'its coordinates are no list of points.'
	const flat: Flat[] = []
	for (const point of ring as unknown[]) {
		const [longitude, latitude] = Array.isArray(point) ? (point as unknown[]) : []
		if (typeof longitude !== 'number' || typeof latitude !== 'number')
			return 'a point of it is no longitude and latitude.'
		if (Math.abs(longitude) > 180 || Math.abs(latitude) > 90)
			return `${longitude}, ${latitude} lies nowhere on earth. GeoJSON writes longitude, then latitude, in degrees.`
		flat.push(flatten({ latitude, longitude }))
	}
	return flat
}

function isObject(value: unknown): value is Record<string, unknown> {
	return typeof value === 'object' && value !== null && !Array.isArray(value)
}
