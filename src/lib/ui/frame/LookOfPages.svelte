<script lang="ts">
	/** How pages look on this device: by the device's wish, or by hand. */
	import { onMount } from 'svelte'
	import { LOOK_COOKIE, readLook, writeLook, type LookOfPages } from '$lib/core/requests/look-of-pages.ts'

	const id = $props.id()
	let look = $state.raw<LookOfPages>({ theme: undefined, contrast: false })
	const YEAR_SECONDS = 365 * 86_400

	onMount(() => {
		const [, said] = new RegExp(`(?:^|; )${LOOK_COOKIE}=([^;]*)`).exec(document.cookie) ?? []
		look = readLook(said)
	})

	function choose(next: Partial<LookOfPages>) {
		look = { ...look, ...next }
		document.cookie = `${LOOK_COOKIE}=${writeLook(look)}; path=/; max-age=${YEAR_SECONDS}; samesite=lax`
		const root = document.documentElement
		if (look.theme) root.dataset['theme'] = look.theme
		else delete root.dataset['theme']
		if (look.contrast) root.dataset['contrast'] = 'more'
		else delete root.dataset['contrast']
	}
</script>

<fieldset>
	<legend>How pages look on this device</legend>
	{#each [[undefined, 'as the device'], ['light', 'light'], ['dark', 'dark']] as const as [theme, words] (words)}
		<label
			><input
				type="radio"
				name="{id}-theme"
				checked={look.theme === theme}
				onchange={() => choose({ theme })}
			/>{words}</label
		>
	{/each}
	<label
		><input
			type="checkbox"
			checked={look.contrast}
			onchange={({ currentTarget }) => choose({ contrast: currentTarget.checked })}
		/>more contrast</label
	>
</fieldset>

<style>
	fieldset {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.2rem 1.2rem;
		margin: 0;
		padding: 0;
		border: 0;
	}
	legend {
		padding: 0;
		font-weight: 600;
	}
	label {
		display: inline-flex;
		align-items: center;
		gap: 0.45rem;
		min-height: 44px;
	}
</style>
