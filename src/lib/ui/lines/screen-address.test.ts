import { expect, test } from 'vitest'
import {
	backToList,
	besideList,
	heldIn,
	searchAt,
	searchIn,
	soughtIn,
	withChosen,
	withOrder,
	withSought
} from './screen-address.ts'

const at = (query: string) => new URL(`https://tin-shed.example/app/1/due${query}`)

test.each([
	['', {}],
	['?h.mooring=a&h.jetty=b&row=c', { mooring: 'a', jetty: 'b' }]
])('the rows chosen in "%s"', (query, held) => {
	expect(heldIn(at(query))).toEqual(held)
})

test('another choice leaves the rest as it stands', () => {
	expect(withChosen(at('?h.mooring=a&f.l.3=Ness&row=r'), 'mooring', 'b c')).toBe('?h.mooring=b+c&f.l.3=Ness&row=r')
	expect(withChosen(at(''), 'mooring', 'x')).toBe('?h.mooring=x')
})

test('a row opens beside its list as that stands, and leads back to it', () => {
	const list = at('?f.l.3=Ness&f.l.3=&h.mooring=a&row=old&from=due')
	const opened = besideList(list, { to: '/app/1/sheet', row: 'new', from: 'due' })
	expect(opened).toBe('/app/1/sheet?row=new&from=due&f.l.3=Ness&f.l.3=&h.mooring=a')
	expect(backToList(new URL(opened, list), '/app/1/due')).toBe('/app/1/due?f.l.3=Ness&f.l.3=&h.mooring=a')
	expect(backToList(at('?row=x'), '/app/1/due')).toBe('/app/1/due')
})

test('a list is ordered by a column, the other way, and as it was', () => {
	const ways = ['?s.l=4', '?s.l=4-', '?']
	let url = at('?s.m=2')
	for (const way of ways) {
		const next = withOrder(url, 'l', 4)
		expect(next).toBe(way === '?' ? '?s.m=2' : `?s.m=2&${way.slice(1)}`)
		url = new URL(next, url)
	}
	expect(withOrder(at('?s.l=9-'), 'l', 4)).toBe('?s.l=4')
})

test('words that a list is looked through for stand in the fragment', () => {
	const sought = withSought(at('?f.l.3=Ness#h.boat=wren'), 'l', 'bow 13')
	expect(sought).toBe('?f.l.3=Ness#h.boat=wren&f.l=bow+13')
	expect(soughtIn(new URL(sought, at('')), 'l')).toBe('bow 13')
	expect(withSought(new URL(sought, at('')), 'l', ' ')).toBe('?f.l.3=Ness#h.boat=wren')
})

test('what is looked for is taken from an address, and put into another', () => {
	const search = searchIn(at('?row=r&from=due&f.l.3=Ness&h.kind=Rope&s.l=4-#f.l=bow'))
	expect(search).toEqual({ query: 'f.l.3=Ness&h.kind=Rope&s.l=4-', words: 'f.l=bow' })
	expect(searchAt('/app/1/due', search)).toBe('/app/1/due?f.l.3=Ness&h.kind=Rope&s.l=4-#f.l=bow')
	expect(searchIn(at('?row=r'))).toEqual({ query: '', words: '' })
})
