/** Coasts: which land lies where, by what every atlas says; cut at the edges of a box; drawn by what draws any ground. */
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { geoContains } from 'd3-geo'
import { feature } from 'topojson-client'
import { describe, expect, test } from 'vitest'
import { boxAround, coastsWithin, finenessFor, WORLD } from '$lib/core/map/coasts.ts'
import { MOST_POINTS, readOutlines } from '$lib/core/map/outline.ts'

const require = createRequire(import.meta.url)
const world = (fineness: string) =>
	JSON.parse(readFileSync(require.resolve(`world-atlas/land-${fineness}.json`), 'utf8')) as Parameters<
		typeof coastsWithin
	>[0]
type Ring = readonly (readonly [number, number])[]
interface Land {
	readonly features: readonly { readonly geometry: { readonly coordinates: readonly Ring[] } }[]
}
const landWithin = (...asked: Parameters<typeof coastsWithin>) => coastsWithin(...asked) as Land

/** Even-odd, as a page fills it. */
function isLand({ features }: Land, [x, y]: readonly [number, number]): boolean {
	const crossings = features
		.flatMap(({ geometry }) => geometry.coordinates)
		.flatMap((ring) =>
			ring.slice(1).filter(([bx, by], i) => {
				const [ax, ay] = ring[i] ?? [0, 0]
				return ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax
			})
		)
	return crossings.length % 2 === 1
}

describe.each(['10m', '50m'] as const)('at 1:%s', (fineness) => {
	// The box holds the Channel with both its coasts. Places from memory, degrees rounded.
	const land = landWithin(world(fineness), { west: -6, south: 47, east: 3, north: 53 })

	test.each<[string, readonly [number, number], boolean]>([
		['Dartmoor', [-3.9, 50.6], true],
		['London', [-0.1, 51.5], true],
		['Rennes', [-1.7, 48.1], true],
		['the middle of the Channel', [-2, 50.0], false],
		['Lyme Bay', [-3, 50.4], false]
	])('%s is where it is', (_name, place, expected) => {
		expect(isLand(land, place)).toBe(expected)
	})

	test('is cut at the edges of the box', () => {
		const points = land.features.flatMap(({ geometry }) => geometry.coordinates.flat())
		expect(points.length).toBeGreaterThan(50)
		expect(points.every(([x, y]) => x >= -6 && x <= 3 && y >= 47 && y <= 53)).toBe(true)
	})

	test('is drawn by what draws any ground', () => {
		const read = readOutlines(JSON.stringify(land))
		expect(read.ok).toBe(true)
	})
})

test('the whole world is few enough points for a page, and holds what d3-geo says is land', () => {
	const topology = world(finenessFor(WORLD))
	const land = landWithin(topology, WORLD)
	expect(land.features.flatMap(({ geometry }) => geometry.coordinates.flat()).length).toBeLessThan(MOST_POINTS)
	const reference = feature(topology, topology.objects.land)
	const holds = (longitude: number, latitude: number) => geoContains(reference, [longitude, latitude])
	let asked = 0
	for (let longitude = -175; longitude < 180; longitude += 10)
		for (let latitude = -75; latitude < 85; latitude += 10) {
			const wanted = holds(longitude, latitude)
			// Near a coast the two differ: edges are great circles on the sphere, and straight on the map.
			const isNear = [-3, 3].some(
				(off) => holds(longitude + off, latitude) !== wanted || holds(longitude, latitude + off) !== wanted
			)
			if (isNear) continue
			asked++
			expect(isLand(land, [longitude, latitude]), `${longitude}, ${latitude}`).toBe(wanted)
		}
	expect(asked).toBeGreaterThan(300)
})

test('a box lies around the places, in whole degrees; without any it is the world', () => {
	expect(boxAround([])).toEqual(WORLD)
	expect(boxAround([{ latitude: 50.3, longitude: -4.1 }])).toEqual({ west: -5, south: 50, east: -3, north: 51 })
	expect(boxAround([{ latitude: -84, longitude: 179 }, { latitude: 84, longitude: -179 }])).toEqual(WORLD) // prettier-ignore
	expect([20, 40, 360].map((east) => finenessFor({ west: 0, east, south: 0, north: 1 }))).toEqual([
		'10m',
		'50m',
		'110m'
	])
})
