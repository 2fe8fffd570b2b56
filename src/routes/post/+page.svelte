<script lang="ts">
	import { showMoment } from '$lib/ui/dates.ts'
	import PageHeader from '$lib/ui/frame/PageHeader.svelte'

	let { data } = $props()

	/** Words and links of a message; a link is only taken as one if it leads into this workspace. */
	function partsOf(body: string): { text: string; href?: string }[] {
		return body.split(/(https?:\/\/\S+|(?<=\s)\/waiting\/\S+)/).map((text) => {
			const path = text.startsWith(`${data.origin}/`) ? text.slice(data.origin.length) : text
			return path.startsWith('/') ? { text, href: path } : { text }
		})
	}
</script>

<svelte:head><title>Post tray</title></svelte:head>

<PageHeader title="Post tray" workspace={data.workspaceName} user={data.user} waiting={data.waiting} />
<main>
	<h1>Post tray</h1>
	<p class="quiet">
		The stand-in for mail: it takes messages in and lets nothing out. {data.tray.all
			? 'This is a demo, so builders and stewards see what would have been sent to everybody.'
			: 'These are the messages that would have been sent to you.'}
	</p>
	{#each data.tray.messages as message (message.messageId)}
		<article>
			<header>
				<h2>{message.subject}</h2>
				<span class="quiet">to {message.recipient} · {showMoment(message.takenAt)}</span>
				{#if message.repeats > 0}<span class="stamp">came {message.repeats + 1} times, taken once</span>{/if}
			</header>
			{#if message.html}
				<details>
					<summary>As mail shows it</summary>
					<iframe title="{message.subject}, as mail shows it" sandbox="" srcdoc={message.html} loading="lazy"></iframe>
				</details>
			{/if}
			{#if message.fileName}
				<p>
					With it came <a href="/post/file?message={encodeURIComponent(message.messageId)}" download
						>{message.fileName}</a
					>
				</p>
			{/if}
			<p class="body">
				{#each partsOf(message.body) as part, i (i)}{#if part.href}<a href={part.href}>{part.text}</a
						>{:else}{part.text}{/if}{/each}
			</p>
		</article>
	{:else}
		<p>No message has been sent yet.</p>
	{/each}
</main>

<style>
	main {
		max-width: 52rem;
		padding: 1.2rem 2rem 3rem;
		display: grid;
		gap: 0.8rem;
	}
	article {
		border: 1px solid var(--zinc-3);
		border-radius: 3px;
		padding: 0.7rem 1rem;
		display: grid;
		gap: 0.4rem;
	}
	header {
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 0.2rem 0.9rem;
	}
	iframe {
		width: 100%;
		height: 24rem;
		border: 1px solid var(--zinc-3);
		background: #fff;
	}
	summary {
		color: var(--zinc-7);
	}
	.body {
		white-space: pre-line;
		overflow-wrap: anywhere;
	}
</style>
