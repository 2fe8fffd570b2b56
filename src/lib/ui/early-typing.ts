/**
 * What was typed before a page had come to life. The fields stand there as soon as the page is sent, but until its scripts
 * run nobody listens, and when they do they write into each field what it said when it was sent.
 */
type Field = HTMLInputElement | HTMLTextAreaElement

/** Fields that are typed into; a box that is ticked has a value whether it is ticked or not. */
const TYPED_INTO: ReadonlySet<string> = new Set([
	...['text', 'textarea', 'search', 'email', 'url', 'tel', 'password', 'number'],
	...['date', 'time', 'datetime-local']
])

const typed = new Map<Field, string>()

/** Notes it, before the scripts take the page over. */
export function noteEarlyTyping(): void {
	for (const field of document.querySelectorAll<Field>('input, textarea'))
		if (TYPED_INTO.has(field.type) && field.value !== field.defaultValue) typed.set(field, field.value)
}

/** Types it again, once somebody listens. */
export function typeAgain(): void {
	for (const [field, text] of typed) {
		if (!field.isConnected) continue
		field.value = text
		for (const event of ['input', 'change']) field.dispatchEvent(new Event(event, { bubbles: true }))
	}
	typed.clear()
}
