import type { ClientInit } from '@sveltejs/kit'
import { noteEarlyTyping } from '$lib/ui/early-typing.ts'

/** Runs before the page is taken over. */
export const init: ClientInit = noteEarlyTyping
