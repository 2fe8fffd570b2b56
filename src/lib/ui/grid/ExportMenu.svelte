<script lang="ts">
	/** The formats in which rows leave: what the reader may not see is in none of them. */
	import { FILE_FORMATS } from '$lib/core/exchange/file-formats.ts'

	type Props = {
		/** What is exported; the format is added. */
		from: string
		/** What the menu is called. */
		words?: string
	}

	let { from, words: title = 'Export' }: Props = $props()

	let menu = $state<HTMLDetailsElement>()
</script>

<details bind:this={menu}>
	<summary class="btn">{title}</summary>
	<ul>
		{#each Object.entries(FILE_FORMATS) as [format, { words }] (format)}
			<li>
				<a
					href="{from}{from.includes('?') ? '&' : '?'}format={encodeURIComponent(format)}"
					download
					onclick={() => menu && (menu.open = false)}>{words}</a
				>
			</li>
		{/each}
	</ul>
</details>

<style>
	details {
		position: relative;
	}
	summary {
		list-style: none;
		cursor: pointer;
	}
	ul {
		position: absolute;
		right: 0;
		z-index: 9;
		margin: 0.2rem 0 0;
		padding: 0.3rem 0;
		list-style: none;
		width: max-content;
		background: var(--paper);
		border: 1px solid var(--pitch);
		border-radius: 3px;
		box-shadow: 0 10px 30px rgb(0 0 0 / 20%);
	}
	a {
		display: block;
		padding: 0.4rem 1rem;
		color: inherit;
		text-decoration: none;
	}
	a:hover {
		background: var(--marigold-wash);
	}
</style>
