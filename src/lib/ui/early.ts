/**
 * What was done to a page before it had come to life. Its fields and buttons stand there as soon as it is sent, but until
 * its scripts run nobody listens, and when they do they write into each field what it said when it was sent.
 */
type Field = HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement

/** A press of a button or link, or the sending of a form, kept by the few lines in `app.html` that run before all else. */
export type EarlyAction = { press: HTMLElement } | { send: HTMLFormElement; by: HTMLElement | null }

declare global {
	interface Window {
		/** What was done so far; it is kept no longer once `over` was called. */
		early?: { actions: EarlyAction[]; over: () => void }
	}
}

const BOXES: ReadonlySet<string> = new Set(['checkbox', 'radio'])

/** Fields that are typed into or chosen from; a box that is ticked has a value whether it is ticked or not. */
const FILLED_IN: ReadonlySet<string> = new Set([
	...['text', 'textarea', 'search', 'email', 'url', 'tel', 'password', 'number'],
	...['date', 'time', 'datetime-local', 'select-one']
])

const filled = new Map<Field, string>()
/** Boxes that were ticked, or were not any more, and files that were chosen. */
const ticked = new Map<HTMLInputElement, boolean>()
const chosen = new Set<HTMLInputElement>()

/**
 * Notes what fields say that they were not sent with. To be called as the page is taken over and no sooner: its scripts
 * come in several files, and people go on typing while the last of them is on its way.
 */
export function noteEarly(): void {
	for (const field of document.querySelectorAll<Field>('input, textarea, select'))
		if (FILLED_IN.has(field.type) && field.value !== sentWith(field)) filled.set(field, field.value)
	for (const field of document.querySelectorAll('input')) {
		if (BOXES.has(field.type) && field.checked !== field.defaultChecked) ticked.set(field, field.checked)
		if (field.type === 'file' && field.files && field.files.length > 0) chosen.add(field)
	}
}

/** Does it again, in its order, once somebody listens. */
export function doAgain(): void {
	for (const [field, text] of filled) {
		if (!field.isConnected) continue
		field.value = text
		for (const event of ['input', 'change']) field.dispatchEvent(new Event(event, { bubbles: true }))
	}
	filled.clear()
	for (const [field, isTicked] of ticked) if (field.isConnected) field.checked = isTicked
	for (const field of [...ticked.keys(), ...chosen])
		if (field.isConnected)
			for (const event of ['input', 'change']) field.dispatchEvent(new Event(event, { bubbles: true }))
	ticked.clear()
	chosen.clear()
	window.early?.over()
	for (const action of window.early?.actions.splice(0) ?? []) {
		if ('press' in action) action.press.click()
		else if (action.send.isConnected) action.send.requestSubmit(action.by)
	}
}

function sentWith(field: Field): string {
	if (!(field instanceof HTMLSelectElement)) return field.defaultValue
	const options = [...field.options]
	return (options.findLast((option) => option.defaultSelected) ?? options[0])?.value ?? ''
}
