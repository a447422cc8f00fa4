<script lang="ts">
	import type { RoomView } from '../../core/packet';
	import { useWords } from '../signing/words';

	/** Who belongs to the session, who is there, and how far each has come. */
	let { view }: { view: RoomView } = $props();

	const words = useWords();
	const come = (one: RoomView['people'][number]) => [
		...(one.confirmed ? [words()('room.confirmed')] : []),
		...(one.sworn ? [words()('room.sworn')] : []),
		...(one.signed && !one.notary ? [words()('room.signed')] : []),
		...(one.approved ? [words()('room.approved')] : [])
	];
</script>

<section class="border-b border-hairline px-5 py-4">
	<h2 class="pb-1 text-[16px]">{words()('room.people')}</h2>
	<ul>
		{#each view.people as one (one.id)}
			<li class="flex flex-wrap items-baseline gap-x-2 py-0.5">
				<span
					aria-hidden="true"
					class="size-2.5 rounded-full border {one.there ? 'border-moss bg-moss' : 'border-line'}"
				></span>
				<b><bdi>{one.name}</bdi></b>
				<span class="text-[14px] text-quiet"
					>{[words()(one.there ? 'room.here' : 'room.away'), ...come(one)].join(' · ')}</span
				>
			</li>
		{/each}
	</ul>
</section>
