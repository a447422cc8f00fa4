<script lang="ts">
	import Switch from '../../parts/Switch.svelte';
	import { KINDS } from '../../../core/field';
	import { SENDER, type KindName } from '../../../core/packet';
	import type { Bench } from '../bench.svelte';
	import { ownerName } from '../weave';

	/**
	 * The kinds of field as keys: press the letter or the key, then the page, again and again until Esc; or drag one to
	 * its place.
	 */
	let { bench, ondrop }: { bench: Bench; ondrop: (kind: KindName, x: number, y: number) => void } = $props();

	const owner = $derived(bench.person === null ? null : ownerName(bench.plan, bench.person));
	const off = $derived(bench.plan.papers.length === 0);
	/** how often each kind is used here: those used are marked, and nothing moves under the hand */
	const used = $derived(new Map(KINDS.map((k) => [k.kind, bench.plan.fields.filter((f) => f.kind === k.kind).length])));

	let ghost = $state<{ name: string; x: number; y: number } | null>(null);

	function grab(event: PointerEvent, kind: KindName, name: string) {
		if (event.button !== 0 || off) return;
		const start = { x: event.clientX, y: event.clientY };
		const target = event.currentTarget as HTMLElement;
		target.setPointerCapture(event.pointerId);
		const move = (e: PointerEvent) => {
			if (ghost || Math.hypot(e.clientX - start.x, e.clientY - start.y) > 6) {
				ghost = { name, x: e.clientX, y: e.clientY };
			}
		};
		const end = (e: PointerEvent) => {
			target.removeEventListener('pointermove', move);
			target.removeEventListener('pointerup', end);
			target.removeEventListener('pointercancel', end);
			const dragged = ghost;
			ghost = null;
			if (!dragged || e.type !== 'pointerup') return;
			// the click that follows a drag is no press of the key
			target.addEventListener('click', (c) => c.stopImmediatePropagation(), { once: true, capture: true });
			setTimeout(() => target.blur(), 0);
			ondrop(kind, e.clientX, e.clientY);
		};
		target.addEventListener('pointermove', move);
		target.addEventListener('pointerup', end);
		target.addEventListener('pointercancel', end);
	}
</script>

<section
	aria-label="Tray"
	class="flex h-full flex-wrap content-center items-center gap-x-3 gap-y-1 px-[18px] min-[1200px]:flex-nowrap"
>
	<p class="flex w-full shrink-0 gap-x-4 text-[14px] leading-[18px] text-quiet min-[1200px]:block min-[1200px]:w-36">
		<span
			>{#if bench.placing}Click the page, or press Enter. Esc ends it.{:else if owner}For <b class="text-ink">{owner}</b
				>, press a letter{:else}Add somebody, then press a letter{/if}</span
		>
		<span class="text-[13px]"
			><Switch
				label="for me to fill in"
				on={bench.person === SENDER}
				onturn={(on) => (bench.person = on ? SENDER : (bench.actors[0]?.id ?? null))}
			/></span
		>
	</p>
	<div class="grid min-w-0 flex-1 grid-cols-9 gap-1" role="toolbar" aria-label="Kinds of field">
		{#each KINDS as kind (kind.kind)}
			{@const times = used.get(kind.kind) ?? 0}
			<button
				class="flex h-[36px] min-w-0 touch-none items-center gap-1 rounded-sm border px-1.5 text-left min-[1200px]:gap-1.5 min-[1200px]:px-2 {bench.placing ===
				kind.kind
					? 'border-2 border-thread bg-wash'
					: 'border-hairline hover:border-thread'}"
				aria-pressed={bench.placing === kind.kind}
				aria-keyshortcuts={kind.letter}
				disabled={off}
				onpointerdown={(event) => grab(event, kind.kind, kind.name)}
				onclick={() => (bench.placing = bench.placing === kind.kind ? null : kind.kind)}
			>
				<kbd class="w-3.5 font-sans text-[14px] font-semibold text-thread">{kind.letter}</kbd>
				<span
					class="text-[13px] whitespace-nowrap min-[1200px]:text-[14px] {times > 0
						? 'font-semibold min-[1200px]:font-normal'
						: ''}">{kind.name}</span
				>
				{#if times > 0}<span
						class="ml-auto hidden text-[12px] text-quiet min-[1200px]:inline"
						title="{times} in this packet"><span class="unseen">, </span>{times}<span class="unseen"> here</span></span
					>{/if}
			</button>
		{/each}
	</div>
</section>
{#if ghost}
	<span
		class="pointer-events-none fixed z-50 -translate-x-1/2 -translate-y-1/2 rounded-[2px] border border-thread bg-sheet px-2 py-0.5 text-[13px]"
		style:left="{ghost.x}px"
		style:top="{ghost.y}px">{ghost.name}</span
	>
{/if}
