/** How long a screen is left alone before it goes back. */
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { Countdown } from './countdown.svelte.ts'

beforeEach(() => {
	vi.useFakeTimers()
	vi.stubGlobal('navigator', {})
})
afterEach(() => {
	vi.useRealTimers()
	vi.unstubAllGlobals()
})

test('ends once, after it was left untouched for so long, and says so before', () => {
	const ended = vi.fn()
	const countdown = new Countdown(() => 30, ended)
	const stop = countdown.begin()
	vi.advanceTimersByTime(19_000)
	expect(countdown).toMatchObject({ left: 11, isNear: false })
	vi.advanceTimersByTime(1_000)
	expect(countdown).toMatchObject({ left: 10, isNear: true })
	countdown.touch()
	expect(countdown).toMatchObject({ left: 30, isNear: false })
	vi.advanceTimersByTime(29_000)
	expect(ended).not.toHaveBeenCalled()
	vi.advanceTimersByTime(5_000)
	expect(ended).toHaveBeenCalledTimes(1)
	stop()
	countdown.touch()
	vi.advanceTimersByTime(90_000)
	expect(ended).toHaveBeenCalledTimes(1)
})

test('a short one says so for its last third', () => {
	const countdown = new Countdown(
		() => 6,
		() => undefined
	)
	const stop = countdown.begin()
	vi.advanceTimersByTime(3_000)
	expect(countdown.isNear).toBe(false)
	vi.advanceTimersByTime(1_000)
	expect(countdown.isNear).toBe(true)
	stop()
})
