import { beforeEach, expect, test } from 'vitest'
import { MapHand } from './map-hand.ts'

const FRAME = { left: 100, top: 50 }
const at = (pointerId: number, clientX: number, clientY: number) => ({ pointerId, clientX, clientY })
let done: string[]
let hand: MapHand

beforeEach(() => {
	done = []
	hand = new MapHand({
		move: (right, down) => done.push(`move ${right} ${down}`),
		zoom: (by, { x, y }) => done.push(`zoom ${by} at ${x} ${y}`)
	})
})

test('one finger moves it', () => {
	hand.down(at(1, 200, 200))
	hand.move(at(1, 230, 190), FRAME)
	expect(done).toEqual(['move 30 -10'])
})

test('two fingers apart draw it nearer, around the middle between them', () => {
	hand.down(at(1, 200, 200))
	hand.down(at(2, 300, 200))
	hand.move(at(2, 400, 200), FRAME)
	expect(done).toEqual(['move 50 0', 'zoom 2 at 200 150'])
})

test('a finger that never came down, or went up, moves nothing', () => {
	hand.move(at(1, 10, 10), FRAME)
	hand.down(at(1, 200, 200))
	hand.up(at(1, 0, 0))
	hand.move(at(1, 300, 300), FRAME)
	expect(done).toEqual([])
	expect(hand.isDown).toBe(false)
})

test('when one of two goes up the other moves it on, without a jump', () => {
	hand.down(at(1, 200, 200))
	hand.down(at(2, 300, 200))
	hand.up(at(1, 200, 200))
	hand.move(at(2, 310, 200), FRAME)
	expect(done).toEqual(['move 10 0'])
})
