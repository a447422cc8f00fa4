<script lang="ts">
	import Toggles from '../../parts/Toggles.svelte';
	import Tabs from '../../parts/Tabs.svelte';
	import DialogBox from '../../parts/DialogBox.svelte';
	import { Dialog } from '../../parts/dialog';
	import { stopOf } from '../../../core/route';
	import type { Answers } from '../../../core/field';
	import type { Plan, PlanPerson } from '../../../core/packet';
	import { afterRehearsed, forgetRehearsal, rehearsed } from './rehearsing';

	/** The plan as each of its people will have it, at the width of a desk or a phone. Nothing is sent. */
	let {
		of: bench,
		turn,
		open = $bindable(false),
		onclose
	}: {
		of: {
			/** by which the rehearsal is kept in this tab */
			id: string;
			plan: Plan;
			actors: PlanPerson[];
			senderAnswers: Answers;
			today: string;
			/** keeps the last change first; whether it is kept */
			flush(): Promise<boolean>;
		};
		/** the address of the page as somebody will have it */
		turn: (person: string) => string;
		open?: boolean;
		onclose?: () => void;
	} = $props();

	const actors = $derived([...bench.actors].sort((a, b) => stopOf(bench.plan, a.id) - stopOf(bench.plan, b.id)));
	let person = $state('');
	let wide = $state(true);
	let round = $state(0);
	let ready = $state(false);
	let say = $state('');
	/** whom a rule, or another one of their group, has left out by what was answered */
	let leftOut = $state.raw<string[]>([]);
	const shown = $derived(actors.some((p) => p.id === person) ? person : (actors[0]?.id ?? ''));

	$effect(() => {
		if (!open) return;
		ready = false;
		say = '';
		leftOut = [];
		forgetRehearsal(bench.id);
		void bench.flush().then((saved) => {
			ready = saved;
			if (!saved) say = 'The last change is not saved yet, so there is nothing to rehearse. Try again in a moment.';
		});
	});
	/** the page inside says when somebody has finished there */
	function heard(event: MessageEvent) {
		if (event.origin !== location.origin || (event.data as { rehearsed?: string })?.rehearsed !== shown) return;
		const { next, left } = afterRehearsed(bench.plan, shown, rehearsed(bench.id), bench.senderAnswers, bench.today);
		leftOut = [...leftOut, ...left];
		if (next) person = next;
	}
</script>

<svelte:window onmessage={heard} />
<DialogBox whole bind:open onOpenChange={(now) => !now && onclose?.()}>
	<div class="flex flex-wrap items-center gap-3 border-b border-hairline px-5 py-3">
		<Dialog.Title class="font-serif text-lg font-semibold">Rehearsal</Dialog.Title>
		<Dialog.Description class="text-[14px] text-quiet">Nothing is sent, and nothing is kept.</Dialog.Description>
		<div class="ml-auto">
			<Toggles
				label="Width"
				value={wide ? 'desk' : 'phone'}
				options={[
					['desk', 'Desk'],
					['phone', 'Phone']
				]}
				onchoose={(width) => (wide = width === 'desk')}
			/>
		</div>
		<button
			class="button"
			onclick={() => {
				forgetRehearsal(bench.id);
				person = '';
				leftOut = [];
				round += 1;
			}}>From the beginning</button
		>
		<Dialog.Close class="button">Close</Dialog.Close>
	</div>
	{#if say}<p class="p-6" role="alert">{say}</p>
	{:else if actors.length === 0}<p class="p-6">Nobody on the route has anything to do yet.</p>
	{:else if ready}
		<Tabs
			label="As whom"
			value={shown}
			options={actors.map((one, i) => [
				one.id,
				`${i + 1}. ${one.name || one.role || 'No name yet'}${leftOut.includes(one.id) ? ', left out' : ''}`
			])}
			onchoose={(id) => (person = id)}
			look="grid min-h-0 flex-1 place-items-center bg-desk"
		>
			{#key `${shown} ${round}`}
				<iframe
					class="h-full border-0 bg-sheet {wide ? 'w-full' : 'w-[390px]'}"
					title="The page as {actors.find((p) => p.id === shown)?.name} will have it"
					src={turn(shown)}
				></iframe>
			{/key}
		</Tabs>
	{/if}
</DialogBox>
