<script lang="ts">
	import { momentIn } from '../../../core/calendar';
	import { post } from '../../post';

	/** A draft that goes by itself: until it is taken back nobody changes it. Or one that could not go at its time. */
	let { draft, zone }: { draft: { id: string; sendAt: string | null; sendFault: string | null }; zone: string } =
		$props();

	let wrong = $state('');

	async function takeBack() {
		const done = await post(`/bench/${draft.id}/schedule`, { revision: 0, at: null }, 'It goes at its time.');
		if ('wrong' in done) wrong = String(done.wrong);
		else location.reload();
	}
</script>

{#if draft.sendAt}
	<div role="status" class="rounded-sm border border-thread bg-sheet p-3 shadow-(--float)">
		<p>This goes by itself at {momentIn(zone, draft.sendAt)}. Take it back to change it.</p>
		<p class="pt-2"><button class="button" onclick={takeBack}>Take it back</button></p>
		<p class="wrong pt-1 empty:hidden" role="alert">{wrong}</p>
	</div>
{:else if draft.sendFault}
	<p role="alert" class="rounded-sm border border-copper bg-sheet p-3 shadow-(--float)">
		It did not go at its time: {draft.sendFault}
	</p>
{/if}
