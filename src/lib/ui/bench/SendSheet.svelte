<script lang="ts">
	import { Dialog } from 'bits-ui';
	import { deadlineAfter, dayIn } from '../../core/calendar';
	import { actorsAt, acts, dutyVerb } from '../../core/route';
	import { post } from '../post';
	import type { Bench } from './bench.svelte';

	/** All that will happen, in the order it will, and the button that starts it. */
	let {
		bench,
		zone,
		open = $bindable(false),
		onsent
	}: { bench: Bench; zone: string; open?: boolean; onsent: (packet: string) => void } = $props();

	let busy = $state(false);
	let wrong = $state('');
	const plan = $derived(bench.plan);
	const stops = $derived(plan.stops.map((_, i) => actorsAt(plan, i)).filter((people) => people.length > 0));
	const copies = $derived(plan.people.filter((p) => !acts(p.duty)));
	const until = $derived(
		plan.days === null ? null : dayIn(zone, deadlineAfter(new Date().toISOString(), plan.days, zone))
	);

	async function send() {
		busy = true;
		wrong = '';
		const done = (await bench.flush())
			? await post<{ packet: string }>(`/bench/${bench.id}/send`, { revision: bench.atRevision }, 'The draft is kept.')
			: { wrong: 'The last change is not saved yet, so nothing was sent.' };
		busy = false;
		if ('packet' in done) onsent(done.packet);
		else wrong = done.wrong;
	}
</script>

<Dialog.Root bind:open onOpenChange={() => (wrong = '')}>
	<Dialog.Portal>
		<Dialog.Overlay class="fixed inset-0 z-40 bg-ink/30" />
		<Dialog.Content
			class="fixed top-16 right-4 z-50 max-h-[85dvh] w-[440px] max-w-[94vw] overflow-y-auto rounded-sm border border-hairline bg-sheet p-6 shadow-(--float)"
		>
			<Dialog.Title class="font-serif text-lg font-semibold">{plan.title}</Dialog.Title>
			<Dialog.Description class="pb-3 text-quiet">This is what will happen, in this order.</Dialog.Description>
			<ol class="border-l-2 border-dotted border-line pl-4">
				{#each stops as people, i (i)}
					<li class="pb-3">
						<p class="font-semibold">{i === 0 ? 'Now' : `When stop ${i} is done`}</p>
						{#each people as person (person.id)}<p>
								{person.name} gets a message at <span class="break-all">{person.email}</span> to {dutyVerb(
									person.duty
								)}.
							</p>{/each}
					</li>
				{/each}
				<li class="pb-3">
					<p class="font-semibold">When everyone is done</p>
					<p>
						{plan.papers.length === 1 ? 'The document is' : `${plan.papers.length} documents are`} sealed. Everybody{copies.length >
						0
							? `, also ${copies.map((p) => p.name).join(' and ')},`
							: ''} gets the sealed {plan.papers.length === 1 ? 'copy' : 'copies'} and the evidence sheet.
					</p>
				</li>
				<li>
					<p class="font-semibold">{until ? `At the end of ${until}` : 'No end'}</p>
					<p>
						{until
							? 'it ends by itself if somebody is still missing.'
							: 'It stays out until everyone is done or you withdraw it.'}
					</p>
				</li>
			</ol>
			<p class="wrong pt-3 empty:hidden" role="alert">{wrong}</p>
			<p class="flex gap-2 pt-4">
				<button class="button primary" disabled={busy} onclick={send}>{busy ? 'Sending…' : 'Send now'}</button
				><Dialog.Close class="button">Not yet</Dialog.Close>
			</p>
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>
