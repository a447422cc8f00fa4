<script lang="ts">
	import { untrack } from 'svelte';
	import OneOf from '../parts/OneOf.svelte';
	import type { Point } from './point';
	import Pointed from './Pointed.svelte';
	import type { Room } from './room.svelte';

	/** The act's text and its place: on a page of its own, or where the notary has pressed. */
	let { room, pointed = $bindable() }: { room: Room; pointed: Point | null } = $props();

	const view = $derived(room.view);
	let text = $state(untrack(() => room.view.toDraw));
	let where = $state<'own' | 'here'>('own');
	/** how large it is where it stands on a page, in points; the point is its upper left corner */
	const SIZE = { width: 420, height: 110 };

	const draw = () =>
		room.deed({
			do: 'draw',
			text,
			place:
				where === 'here' && pointed
					? {
							paper: pointed.paper,
							page: pointed.page,
							rect: { x: pointed.x, y: Math.max(0, pointed.y - SIZE.height), ...SIZE }
						}
					: null
		});
</script>

<section class="border-t border-hairline pt-3">
	<label
		>The act <span class="text-quiet">what it says, above your name and commission</span><textarea
			class="input mt-1 h-40"
			maxlength="4000"
			bind:value={text}></textarea></label
	>
	<div class="py-2">
		<OneOf
			label="Where it stands"
			bind:value={where}
			options={[
				['own', 'on a page of its own, at the end'],
				['here', 'where I point, its upper left corner there']
			]}
		/>
	</div>
	{#if where === 'here'}<div class="pb-2"><Pointed bind:point={pointed} shown={view.page} /></div>{/if}
	<button
		class="button {view.drawn ? '' : 'primary'}"
		disabled={room.busy || (where === 'here' && !pointed)}
		onclick={draw}>{view.drawn ? 'Draw it up anew' : 'Draw it up, and show it'}</button
	>
</section>
