/** Maps: projection and distance against d3-geo and published figures, clusters against their own rule, hostile outlines. */
import { geoDistance, geoMercator } from 'd3-geo'
import { describe, expect, test } from 'vitest'
import { randomFrom } from '../../../../demo/random.ts'
import { clusterPoints } from './cluster.ts'
import { distance, flatten, readPlace, sayDistance, unflatten, widthAt } from './mercator.ts'
import { MOST_POINTS, readOutlines } from './outline.ts'

const random = randomFrom(7)
const PLACES = Array.from({ length: 300 }, () => ({
	latitude: random.next() * 168 - 84,
	longitude: random.next() * 360 - 180
}))

describe('drawn flat', () => {
	// d3-geo, geoMercator: x = λ, y = ln tan(π/4 + φ/2); at scale 1/2π and moved to the middle the world is one wide.
	const reference = geoMercator().scale(1 / (2 * Math.PI)).translate([0.5, 0.5]) // prettier-ignore

	test('as d3-geo draws it, and back again', () => {
		for (const place of PLACES) {
			const { x, y } = flatten(place)
			const [wantedX = 0, wantedY = 0] = reference([place.longitude, place.latitude]) ?? []
			expect(x).toBeCloseTo(wantedX, 10)
			expect(y).toBeCloseTo(wantedY, 10)
			expect(unflatten({ x, y }).latitude).toBeCloseTo(place.latitude, 8)
			expect(unflatten({ x, y }).longitude).toBeCloseTo(place.longitude, 8)
		}
	})

	test('as the worked example of EPSG guidance note 7-2 has it', () => {
		// From memory: Popular Visualisation Pseudo-Mercator, EPSG method 1024: 24°22′54.433″ N, 100°20′00″ W
		// gives E −11 169 055.58, N 2 800 000.00 metres on a sphere of 6 378 137 metres.
		const { x, y } = flatten({ latitude: 24 + 22 / 60 + 54.433 / 3600, longitude: -(100 + 20 / 60) })
		const round = 2 * Math.PI * 6_378_137
		expect((x - 0.5) * round).toBeCloseTo(-11_169_055.58, 1)
		expect((0.5 - y) * round).toBeCloseTo(2_800_000, 0)
	})

	test('the poles are as far as it goes', () => {
		expect(flatten({ latitude: 90, longitude: 0 }).y).toBeCloseTo(0, 6)
		expect(flatten({ latitude: -90, longitude: 180 })).toEqual({ x: 1, y: expect.closeTo(1, 6) })
	})
})

describe('distance', () => {
	test('is that of d3-geo on a sphere of the same size', () => {
		for (const [i, place] of PLACES.entries()) {
			const other = PLACES[(i + 1) % PLACES.length] ?? place
			const wanted = geoDistance([place.longitude, place.latitude], [other.longitude, other.latitude]) * 6_371_008.8
			expect(distance(place, other)).toBeCloseTo(wanted, 2)
		}
	})

	test('a quarter of a meridian is some ten thousand kilometres, a minute of arc a nautical mile', () => {
		expect(distance({ latitude: 0, longitude: 0 }, { latitude: 90, longitude: 0 }) / 1000).toBeCloseTo(10_007.56, 1)
		// 1,852 m by definition; on this sphere 1,853.2.
		expect(distance({ latitude: 50, longitude: -4 }, { latitude: 50 + 1 / 60, longitude: -4 })).toBeCloseTo(1853.2, 0)
		expect(widthAt(60)).toBeCloseTo(widthAt(0) / 2, 3)
	})

	test.each([
		[0, '0 m'],
		[38.4, '38 m'],
		[144, '140 m'],
		[994, '990 m'],
		[996, '1.0 km'],
		[1234, '1.2 km'],
		[9_990, '10 km'],
		[123_456, '123 km']
	])('%s is said as %s', (metres, says) => {
		// prettier-ignore
		expect(sayDistance(metres)).toBe(says)
	})
})

test.each([
	['50.3121, -4.1102', { latitude: 50.3121, longitude: -4.1102 }],
	['', undefined],
	['50', undefined],
	['a, b', undefined]
])('%j is read as a place', (text, place) => {
	// prettier-ignore
	expect(readPlace(text)).toEqual(place)
})

describe('clusters', () => {
	const points = Array.from({ length: 1_500 }, () => ({ x: random.next() * 900, y: random.next() * 500 }))
	const clusters = clusterPoints(points, 44)

	test('hold every point once', () => {
		const all = clusters.flatMap(({ members }) => members).toSorted((a, b) => a - b)
		expect(all).toEqual(points.map((_point, i) => i))
	})

	test('take together what is nearer than their reach to the first of them, and nothing else', () => {
		for (const [i, { members }] of clusters.entries()) {
			const [first = 0] = members
			const at = points[first] ?? { x: 0, y: 0 }
			for (const each of members)
				expect(Math.hypot((points[each]?.x ?? 0) - at.x, (points[each]?.y ?? 0) - at.y)).toBeLessThan(44)
			for (const other of clusters.slice(i + 1)) {
				const begins = points[other.members[0] ?? 0] ?? at
				expect(Math.hypot(begins.x - at.x, begins.y - at.y)).toBeGreaterThanOrEqual(44)
			}
		}
	})

	test('of the same place are one; of none there is none', () => {
		expect(clusterPoints(Array.from({ length: 9 }, () => ({ x: 5, y: 5 })), 44).map(({ members }) => members.length)).toEqual([9]) // prettier-ignore
		expect(clusterPoints([], 44)).toEqual([])
	})
})

describe('outlines', () => {
	const RING = [[-4, 50], [-4, 51], [-3, 51], [-4, 50]] // prettier-ignore
	const read = (value: unknown) => readOutlines(JSON.stringify(value))

	test('are read of collections, features and geometries alone', () => {
		const polygon = { type: 'Polygon', coordinates: [RING] }
		const all = [
			polygon,
			{ type: 'Feature', geometry: polygon, properties: null },
			{
				type: 'FeatureCollection',
				features: [
					{
						type: 'Feature',
						geometry: { type: 'MultiPolygon', coordinates: [[RING], [RING, RING]] },
						properties: { name: 'Ness' }
					},
					{ type: 'Feature', geometry: { type: 'LineString', coordinates: RING }, properties: { water: true } },
					{ type: 'Feature', geometry: { type: 'Point', coordinates: [0, 0] }, properties: {} },
					{ type: 'Feature', geometry: null, properties: {} },
					{ type: 'Feature', geometry: { type: 'GeometryCollection', geometries: [polygon] }, properties: {} }
				]
			}
		].map(read)
		expect(
			all.map((each) => (each.ok ? each.outlines.map(({ kind, rings, name }) => [kind, rings.length, name]) : each))
		).toEqual([
			[['area', 1, '']],
			[['area', 1, '']],
			[['area', 1, 'Ness'], ['area', 2, 'Ness'], ['line', 1, ''], ['area', 1, '']] // prettier-ignore
		])
	})

	test.each([
		['no JSON', '{', 'This is no JSON'],
		['nothing of the kind', '[1, 2]', 'draws nothing'],
		['points alone', '{"type":"Point","coordinates":[0,0]}', 'draws nothing'],
		['words for points', '{"type":"LineString","coordinates":[["a","b"]]}', 'Feature 1: a point of it is no longitude'],
		['a ring that is none', '{"type":"Polygon","coordinates":[7]}', 'Feature 1: its coordinates are no list'],
		['latitude first', '{"type":"LineString","coordinates":[[-4,150]]}', 'writes longitude, then latitude'],
		['an endless number', '{"type":"LineString","coordinates":[[1e999,0]]}', 'lies nowhere on earth'],
		['itself, deep', `${'{"type":"GeometryCollection","geometries":['.repeat(400)}${']}'.repeat(400)}`, 'draws nothing']
	])('%s is refused with its place', (_what, text, message) => {
		const found = readOutlines(text)
		expect(found.ok ? '' : found.message).toContain(message)
	})

	test('a huge one is refused, and says what to do', () => {
		const found = read({ type: 'LineString', coordinates: Array.from({ length: MOST_POINTS + 1 }, () => [0, 0]) })
		expect(found.ok ? '' : found.message).toContain('Simplify it first')
	})
})
