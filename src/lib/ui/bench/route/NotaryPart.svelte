<script lang="ts">
	import { ACT_KINDS, ACTS, type ActKind } from '../../../core/notary';
	import type { PlanPerson } from '../../../core/packet';
	import type { SetPerson } from '../../../core/plan';
	import Choice from '../../parts/Choice.svelte';
	import type { Bench } from '../bench.svelte';

	/** Which notary, and which act: who comes before them stands beside them, at the same stop. */
	let { bench, person, set }: { bench: Bench; person: PlanPerson; set: SetPerson } = $props();

	const notaries = $derived(bench.office.notaries ?? []);
	const asked = $derived(person.notary ?? { act: 'acknowledgement' as ActKind, commission: '' });
	const chosen = $derived(notaries.find((one) => one.id === asked.commission));

	function choose(id: string) {
		const notary = notaries.find((one) => one.id === id);
		set(
			'the notary',
			{ notary: { ...asked, commission: id }, ...(notary && { name: notary.name, email: notary.email }) },
			false
		);
	}
</script>

<Choice
	label="Notary"
	value={asked.commission}
	options={[
		['', notaries.length === 0 ? 'nobody yet: add one among the stand-ins' : 'choose'],
		...notaries.map((one): [string, string] => [one.id, `${one.name}, ${one.jurisdiction}`])
	]}
	onchoose={choose}
/>
{#if chosen?.fault}<p class="wrong -mt-2">{chosen.fault}</p>{/if}
<Choice
	label="Act"
	value={asked.act}
	options={ACT_KINDS.map((kind) => [kind, kind])}
	onchoose={(kind) => set('the act', { notary: { ...asked, act: kind as ActKind } }, false)}
/>
<p class="-mt-2 text-[14px] text-quiet">
	{ACTS[asked.act].about}.
	{chosen?.fees[asked.act] ? `Fee: ${chosen.fees[asked.act]}, paid to the notary.` : ''}
	{chosen ? `Works ${chosen.hours}.` : ''} Whoever signs before the notary stands beside them at this stop; for one device,
	let them do it on the notary’s.
</p>
