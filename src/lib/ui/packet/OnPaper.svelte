<script lang="ts">
	import type { PacketView } from '../../core/packet';
	import { STATE } from '../paper/says';

	/** Who signs on paper, or may: where theirs is, and the way to it. */
	let { packet }: { packet: Pick<PacketView, 'id' | 'people' | 'status'> } = $props();

	const people = $derived(
		packet.people.filter(
			(one) =>
				one.ink !== null &&
				(one.ink !== 'may' || (packet.status === 'out' && ['notified', 'opened', 'unreachable'].includes(one.standing)))
		)
	);
</script>

{#each people as one (one.id)}
	{@const waits = one.ink === 'doubts' || one.ink === 'sure'}
	<div class="mb-5 border-s-[3px] {waits ? 'border-thread bg-linen' : 'border-line'} px-4 py-2">
		<p>
			<b>{one.name}</b>
			{one.ink === 'may' ? 'may sign on paper.' : `signs on paper. ${STATE[one.ink!]}`}
		</p>
		<p class="pt-1">
			<a class="button {waits ? 'primary' : ''}" href="/packets/{packet.id}/paper/{one.id}"
				>{waits ? 'Look at it' : one.ink === 'may' ? 'By post…' : 'See it'}<span class="unseen"
					>: the paper of {one.name}</span
				></a
			>
		</p>
	</div>
{/each}
