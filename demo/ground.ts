/** The coast of Varrow Sound, invented: land round a bay that is open to the south, an island, a breakwater, two ponds. */
import type { Random } from './random.ts'

type Point = readonly [longitude: number, latitude: number]

const LAND: readonly Point[] = [
	[-4.3, 50.24],
	[-4.235, 50.262],
	[-4.205, 50.287],
	[-4.178, 50.298],
	[-4.1745, 50.311],
	[-4.165, 50.3165],
	[-4.158, 50.312],
	[-4.1535, 50.3005],
	[-4.1495, 50.2935],
	[-4.1475, 50.2965],
	[-4.1465, 50.31],
	[-4.137, 50.316],
	[-4.128, 50.3105],
	[-4.119, 50.3075],
	[-4.1135, 50.3115],
	[-4.1125, 50.331],
	[-4.1065, 50.337],
	[-4.0985, 50.3345],
	[-4.0935, 50.338],
	[-4.0925, 50.3545],
	[-4.0875, 50.3605],
	[-4.0815, 50.3565],
	[-4.0825, 50.3385],
	[-4.0935, 50.3275],
	[-4.0975, 50.3165],
	[-4.0845, 50.3035],
	[-4.0625, 50.2955],
	[-4.03, 50.281],
	[-3.98, 50.27],
	[-3.96, 50.43],
	[-4.3, 50.43]
]
const ISLAND: readonly Point[] = [[-4.1285, 50.2965], [-4.1225, 50.2985], [-4.1175, 50.2965], [-4.1215, 50.2945]] // prettier-ignore
const POND: readonly Point[] = [[-4.1235, 50.3275], [-4.1185, 50.3295], [-4.1205, 50.3325], [-4.1245, 50.3315]] // prettier-ignore
const BREAKWATER: readonly Point[] = [[-4.1505, 50.2885], [-4.1385, 50.2855], [-4.1255, 50.2865]] // prettier-ignore

/** As GeoJSON (RFC 7946). */
export function groundOfSound(random: Random): string {
	const area = (points: readonly Point[], properties: object, wild = 0.002) => ({
		...{ type: 'Feature', properties },
		geometry: { type: 'Polygon', coordinates: [rugged([...points, points[0] as Point], random, wild)] }
	})
	const features = [
		area(LAND, { name: 'Varrow Sound' }),
		area(ISLAND, { name: 'Skerry Isle' }, 0.0008),
		area(POND, { name: 'Mill Pond', water: true }, 0.0006),
		{ type: 'Feature', properties: { name: 'Breakwater' }, geometry: { type: 'LineString', coordinates: BREAKWATER } }
	]
	return JSON.stringify({ type: 'FeatureCollection', features })
}

/** Between each two points more, which lie a little off the straight line: no coast is straight. */
function rugged(points: readonly Point[], random: Random, wild: number, times = 4): Point[] {
	if (times === 0) return points.map(([x, y]): Point => [Number(x.toFixed(5)), Number(y.toFixed(5))])
	const off = () => (random.next() - 0.5) * wild
	const between = points.flatMap((point, i): Point[] => {
		const next = points[i + 1]
		return next ? [point, [(point[0] + next[0]) / 2 + off(), (point[1] + next[1]) / 2 + off() / 1.6]] : [point]
	})
	return rugged(between, random, wild / 2, times - 1)
}
