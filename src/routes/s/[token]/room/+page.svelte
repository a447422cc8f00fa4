<script lang="ts">
	import { untrack } from 'svelte';
	import { page } from '$app/state';
	import Room from '$lib/ui/notary/Room.svelte';
	import { Room as RoomNow } from '$lib/ui/notary/room.svelte';
	import { giveWords } from '$lib/ui/signing/words';
	import { wordsIn } from '$lib/words/words';

	let { data } = $props();
	const words = $derived(wordsIn(data.language, data.texts));
	giveWords(() => words);
	const base = $derived(`/s/${page.params.token!}`);
	const room = new RoomNow(
		untrack(() => base),
		untrack(() => data.room),
		() => words
	);
	$effect(() => room.follow());
</script>

<svelte:head><title>{words('notary.title')} · {room.view.title}</title></svelte:head>

<div lang={data.language} dir={data.direction} class="signing">
	<header
		class="sticky top-0 z-20 flex min-h-[72px] flex-wrap items-center gap-x-4 border-b border-hairline bg-sheet px-4 sm:px-6"
	>
		<div class="min-w-0 flex-1 py-2">
			<h1 class="line-clamp-2 text-[18px] leading-6 sm:text-[20px] sm:leading-7"><bdi>{room.view.title}</bdi></h1>
			<p class="text-[14px] leading-[18px] text-quiet">
				{words('notary.title')}: {room.view.notary.name}, {room.view.notary.jurisdiction}
			</p>
		</div>
	</header>
	<Room {room} back={base} />
</div>
