/** Whether a key goes into an entry, where it is a letter and no command. */
export function isTyping({ target }: Event): boolean {
	return target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
}
