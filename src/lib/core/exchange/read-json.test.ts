/** What of a JSON document is a table: RFC 8259 for the text, RFC 7946 for features. */
import { describe, expect, test } from 'vitest'
import { parseJson, tablesIn } from './read-json.ts'

const tables = (text: string) => tablesIn(parseJson(text) ?? null, 'file')
const shown = (text: string) => tables(text).map(({ name, columns, rows }) => [name, columns, rows])

test.each([
	[
		'a list of records',
		'[{"a":1},{"a":2,"b":"x"}]',
		[
			[
				'file',
				['a', 'b'],
				[
					['1', ''],
					['2', 'x']
				]
			]
		]
	],
	[
		'lists by name',
		'{"boats":[{"a":1}],"crews":[{"b":2}]}',
		[
			['boats', ['a'], [['1']]],
			['crews', ['b'], [['2']]]
		]
	],
	['a list two levels down', '{"data":{"boats":[{"a":1}]},"at":"now"}', [['data.boats', ['a'], [['1']]]]],
	[
		'an object of like records',
		'{"NH-1":{"depth":4},"NH-2":{"depth":6}}',
		[
			[
				'file',
				['key', 'depth'],
				[
					['NH-1', '4'],
					['NH-2', '6']
				]
			]
		]
	],
	[
		'one of them, one level down',
		'{"moorings":{"NH-1":{"depth":4},"NH-2":{"depth":6}}}',
		[
			[
				'moorings',
				['key', 'depth'],
				[
					['NH-1', '4'],
					['NH-2', '6']
				]
			]
		]
	],
	[
		'records with a part called key',
		'{"x":{"key":1},"y":{"key":2}}',
		[
			[
				'file',
				['name of the part', 'key'],
				[
					['x', '1'],
					['y', '2']
				]
			]
		]
	],
	[
		'one record',
		'{"name":"Heron","at":{"lat":1,"lon":2}}',
		[['file', ['name', 'at.lat', 'at.lon'], [['Heron', '1', '2']]]]
	],
	['plain lists within', '[{"a":[1,2,null]}]', [['file', ['a'], [['1; 2; ']]]]],
	[
		'parts that are not alike',
		'{"one":{"a":1},"two":{"b":2},"three":{"c":3}}',
		[['file', ['one.a', 'two.b', 'three.c'], [['1', '2', '3']]]]
	],
	['nothing', '[]', []],
	['a number', '12', []]
])('%s', (_what, text, want) => {
	expect(shown(text)).toEqual(want)
})

test('lists of records within records are left aside, and named', () => {
	const [table] = tables('[{"id":1,"lines":[{"n":1}],"tags":["a"]},{"id":2,"lines":[]}]')
	expect(table?.columns).toEqual(['id', 'tags', 'lines'])
	expect(table?.aside).toEqual(['lines'])
	expect(JSON.stringify(table?.rows)).not.toContain('{')
})

describe('features', () => {
	const feature = (geometry: object, properties: object = { name: 'Quay' }) => ({
		type: 'Feature',
		geometry,
		properties
	})
	const collection = (...features: object[]) => JSON.stringify({ type: 'FeatureCollection', features })

	test('a point is longitude first, and a place latitude first', () => {
		const text = collection(feature({ type: 'Point', coordinates: [-3.2, 58.4, 12] }))
		expect(shown(text)).toEqual([['file', ['name', 'place'], [['Quay', '58.4, -3.2']]]])
	})

	test('another shape is named, and holds no place', () => {
		const text = collection(
			feature({
				type: 'LineString',
				coordinates: [
					[0, 1],
					[2, 3]
				]
			}),
			feature({ type: 'Point', coordinates: [1, 2] })
		)
		expect(shown(text)).toEqual([
			[
				'file',
				['name', 'shape', 'place'],
				[
					['Quay', 'LineString', ''],
					['Quay', '', '2, 1']
				]
			]
		])
	})
})

test.each([
	['{"id":9007199254740993}', '9007199254740993'],
	['{"id":-123456789012345678901}', '-123456789012345678901'],
	['{"id":9007199254740991}', '9007199254740991'],
	['{"id":"say 9007199254740993 \\" 9007199254740993"}', 'say 9007199254740993 " 9007199254740993'],
	['{"id":12345678901234567.5}', '12345678901234568'],
	['{"id":1234567890123456e2}', '123456789012345600']
])('%s keeps its digits', (text, want) => {
	expect(tables(text)[0]?.rows[0]).toEqual([want])
})
