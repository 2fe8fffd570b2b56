import { expect, test } from 'vitest'
import { backToList, besideList, heldIn, withChosen } from './screen-address.ts'

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
