<script lang="ts">
	import { clock } from '../dates';
	import { useWords } from '../signing/words';
	import type { Room } from './room.svelte';

	/** Words to all in the room, kept until the packet has ended. */
	let { room }: { room: Room } = $props();

	const words = useWords();
	const view = $derived(room.view);
	let text = $state('');
	let list = $state<HTMLElement>();

	$effect(() => {
		if (view.words.length > 0 && list) list.scrollTop = list.scrollHeight;
	});

	async function say(event: SubmitEvent) {
		event.preventDefault();
		if (text.trim() !== '' && (await room.deed({ do: 'say', text }))) text = '';
	}
</script>

<section class="border-b border-hairline px-5 py-4">
	<h2 class="pb-1 text-[16px]">{words()('room.words')}</h2>
	{#if view.words.length > 0}
		<!-- what is longer than its room is moved by scrolling, also by keys -->
		<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
		<ul
			bind:this={list}
			class="max-h-52 overflow-y-auto"
			tabindex="0"
			aria-live="polite"
			aria-label={words()('room.words')}
		>
			{#each view.words as one (one.id)}
				<li class="py-1">
					<b><bdi>{one.name}</bdi></b>
					<span class="text-[13px] text-quiet">{clock(one.at, view.zone, words().language)}</span><br />
					<span class="whitespace-pre-wrap wrap-anywhere" dir="auto">{one.said}</span>
				</li>
			{/each}
		</ul>
	{/if}
	<form class="flex gap-2 pt-2" onsubmit={say}>
		<input
			class="input min-h-[44px]! min-w-0 flex-1"
			maxlength="2000"
			aria-label={words()('room.words')}
			bind:value={text}
		/>
		<button class="button large" disabled={!view.present || text.trim() === ''}>{words()('room.say')}</button>
	</form>
</section>
