import type { ClientInit } from '@sveltejs/kit'
import { noteEarly } from '$lib/ui/early.ts'

/** Runs before the page is taken over. */
export const init: ClientInit = noteEarly
