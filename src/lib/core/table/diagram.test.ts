import { expect, test } from 'vitest'
import { layOut } from './diagram.ts'

const PEOPLE = 1
const HARBOURS = 2
const MOORINGS = 3
const INSPECTIONS = 4

test('a table stands to the right of all that it points to', () => {
	const places = layOut([
		{ id: INSPECTIONS, to: [MOORINGS, PEOPLE], height: 40 },
		{ id: MOORINGS, to: [HARBOURS], height: 40 },
		{ id: HARBOURS, to: [], height: 70 },
		{ id: PEOPLE, to: [], height: 40 }
	])
	expect([...places].map(([id, { across, top }]) => [id, across, top])).toEqual([
		[INSPECTIONS, 2, 0],
		[MOORINGS, 1, 0],
		[HARBOURS, 0, 0],
		[PEOPLE, 0, 70]
	])
})

test('circles, references to itself and to tables that are not shown end', () => {
	const places = layOut([
		{ id: PEOPLE, to: [HARBOURS, PEOPLE], height: 1 },
		{ id: HARBOURS, to: [PEOPLE, 99], height: 1 }
	])
	expect(places.get(HARBOURS)).toEqual({ across: 0, top: 0 })
	expect(places.get(PEOPLE)).toEqual({ across: 1, top: 0 })
})
