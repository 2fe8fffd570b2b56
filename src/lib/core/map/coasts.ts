/**
 * The coasts of the world, cut to where something lies: land as Natural Earth (public domain) draws it, in three finenesses, packed
 * by world-atlas. At the scale of one harbour they are coarse; a file of one's own is finer.
 */
import { geoIdentity, geoStream } from 'd3-geo'
import { feature } from 'topojson-client'
import type { FeatureCollection, MultiPolygon, Polygon as OnePolygon, Position } from 'geojson'
import type { GeometryObject, Topology } from 'topojson-specification'
import type { Place } from './mercator.ts'

/** In degrees. */
export interface Box {
	readonly west: number
	readonly south: number
	readonly east: number
	readonly north: number
}

/** The whole world, as far as it is drawn flat. */
export const WORLD: Box = { west: -180, south: -85, east: 180, north: 85 }

/** Around some places, with as much again on every side; the world, where there are none. */
export function boxAround(places: readonly Place[]): Box {
	if (places.length === 0) return WORLD
	const ends = (values: readonly number[]) => [Math.min(...values), Math.max(...values)] as const
	const [south, north] = ends(places.map(({ latitude }) => latitude))
	const [west, east] = ends(places.map(({ longitude }) => longitude))
	const margin = Math.max(LEAST_MARGIN, east - west, north - south)
	return {
		west: Math.max(WORLD.west, Math.floor(west - margin)),
		south: Math.max(WORLD.south, Math.floor(south - margin)),
		east: Math.min(WORLD.east, Math.ceil(east + margin)),
		north: Math.min(WORLD.north, Math.ceil(north + margin))
	}
}

const LEAST_MARGIN = 0.25

/** As fine as a box of that width is looked at. */
export function finenessFor({ west, east }: Box): '10m' | '50m' | '110m' {
	const width = east - west
	return width <= 20 ? '10m' : width <= 90 ? '50m' : '110m'
}

/** GeoJSON (RFC 7946): one area for each piece of land that reaches into the box, cut at its edges. */
export function coastsWithin(world: Topology<{ land: GeometryObject }>, box: Box): object {
	const polygons: [number, number][][][] = []
	let rings: [number, number][][] = []
	let ring: [number, number][] = []
	const cut = geoIdentity().clipExtent([
		[box.west, box.south],
		[box.east, box.north]
	])
	geoStream(
		{ type: 'MultiPolygon', coordinates: landOf(world).flatMap((polygon) => aroundTheWorld(polygon, box)) },
		cut.stream({
			polygonStart: () => void (rings = []),
			lineStart: () => void (ring = []),
			point: (x, y) => void ring.push([Number(x.toFixed(5)), Number(y.toFixed(5))]),
			lineEnd: () => {
				const [first] = ring
				if (first && ring.length > 2) rings.push([...ring, first])
			},
			polygonEnd: () => {
				if (rings.length > 0) polygons.push(rings)
			}
		})
	)
	return {
		type: 'FeatureCollection',
		features: polygons.map((coordinates) => ({
			...{ type: 'Feature', properties: {} },
			geometry: { type: 'Polygon', coordinates }
		}))
	}
}

type Ring = readonly Position[]
type Polygon = readonly Ring[]

function landOf(world: Topology<{ land: GeometryObject }>): Polygon[] {
	const { features } = feature(world, world.objects.land) as FeatureCollection<MultiPolygon | OnePolygon>
	return features.flatMap(({ geometry }) =>
		geometry.type === 'MultiPolygon' ? geometry.coordinates : [geometry.coordinates]
	)
}

/** Land that reaches over the 180th meridian runs on beyond it, and lies a second time at the other edge of the world. */
function aroundTheWorld(polygon: Polygon, { west, east }: Box): Position[][][] {
	const whole = polygon.map(runningOn)
	return [-360, 0, 360].flatMap((by) => {
		const moved = whole.map((ring) => ring.map(([x = 0, y = 0]): Position => [x + by, y]))
		const xs = moved.flatMap((ring) => ring.map(([x = 0]) => x))
		const [least, most] = [xs.reduce((a, b) => Math.min(a, b)), xs.reduce((a, b) => Math.max(a, b))]
		return most >= west && least <= east ? [moved] : []
	})
}

/** Without the jump from one edge of the world to the other. */
function runningOn(ring: Ring): Position[] {
	let by = 0
	let before: number | undefined
	return ring.map(([x = 0, y = 0]): Position => {
		if (before !== undefined) by -= Math.round((x + by - before) / 360) * 360
		before = x + by
		return [before, y]
	})
}
