<script lang="ts">
	/** A surface to draw or sign on, with finger, pen or mouse; who cannot draw may type instead. */
	import SignaturePad from 'signature_pad'
	import { onMount } from 'svelte'

	type Props = {
		id: string
		label: string
		/** Height in pixels. */
		height: number
		/** Says what is on it as a data address, or undefined when it is empty. */
		onchange: (picture: string | undefined) => void
	}

	let { id, label, height, onchange }: Props = $props()

	let canvas: HTMLCanvasElement
	let pad: SignaturePad | undefined
	let strokes = $state(0)
	let typed = $state('')

	onMount(() => {
		const sharp = Math.max(1, window.devicePixelRatio)
		canvas.width = canvas.offsetWidth * sharp
		canvas.height = canvas.offsetHeight * sharp
		canvas.getContext('2d')?.scale(sharp, sharp)
		const made = new SignaturePad(canvas, { penColor: '#16201B', minWidth: 1, maxWidth: 2.6 })
		made.addEventListener('endStroke', tell)
		pad = made
		// A stroke that ends in motion is a fling to the browser, which then swallows the next tap, wherever it is: this is no gesture.
		const noGesture = (event: TouchEvent) => event.preventDefault()
		canvas.addEventListener('touchstart', noGesture, { passive: false })
		return () => made.off()
	})

	function tell() {
		strokes = pad?.toData().length ?? 0
		onchange(strokes === 0 ? undefined : canvas.toDataURL('image/png'))
	}

	function takeBack(count: number) {
		const left = pad?.toData().slice(0, -count) ?? []
		pad?.clear()
		pad?.fromData(left)
		typed = ''
		tell()
	}

	function write(event: Event & { currentTarget: HTMLInputElement }) {
		typed = event.currentTarget.value
		pad?.clear()
		strokes = 0
		const context = canvas.getContext('2d')
		if (!context || typed.trim() === '') return onchange(undefined)
		context.fillStyle = '#16201B'
		context.font = 'italic 36px "Atkinson Hyperlegible Next Variable", sans-serif'
		context.fillText(typed, 16, canvas.offsetHeight / 2 + 12, canvas.offsetWidth - 32)
		onchange(canvas.toDataURL('image/png'))
	}
</script>

<div class="pad" role="group" aria-label="{label}: draw here">
	<canvas bind:this={canvas} style:height="{height}px"></canvas>
	{#if strokes === 0 && typed === ''}<span class="hint" aria-hidden="true">Draw here</span>{/if}
</div>
<div class="under">
	<button type="button" class="btn" disabled={strokes === 0} onclick={() => takeBack(1)}>Take a stroke back</button>
	<button type="button" class="btn" disabled={strokes === 0} onclick={() => takeBack(strokes)}>Start over</button>
	<label for={id}>or type it</label>
	<input {id} class="field" autocomplete="off" value={typed} oninput={write} />
</div>

<style>
	.pad {
		position: relative;
	}
	canvas {
		display: block;
		width: 100%;
		background: #fff;
		border: 1px solid var(--zinc-5);
		border-radius: 3px;
		touch-action: none;
		cursor: crosshair;
	}
	.hint {
		position: absolute;
		left: 1rem;
		bottom: 0.6rem;
		right: 1rem;
		color: #5b665f;
		border-top: 1px dashed #9aa59d;
		pointer-events: none;
	}
	.under {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.5rem;
	}
	.under .btn {
		min-height: 48px;
	}
	.under label {
		font-weight: 400;
	}
	.under input {
		flex: 1;
		min-width: 9rem;
	}
</style>
