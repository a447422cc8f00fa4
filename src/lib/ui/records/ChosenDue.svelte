<script lang="ts">
	import Day from '../parts/Day.svelte';
	import { Dialog } from '../parts/dialog';
	import DialogBox from '../parts/DialogBox.svelte';
	import { tell } from '../parts/told';
	import { post } from '../post';
	import Refusals from './Refusals.svelte';
	import type { Refused } from './filing';

	/** What can be done with what is to go: it goes for good, or is kept longer. Either with a reason. */
	let { ids, two, ondone }: { ids: string[]; /** two must agree */ two: boolean; ondone: () => unknown } = $props();

	/** it stays what it was while the dialog closes */
	let asking = $state<'dispose' | 'keep'>('keep');
	let open = $state(false);
	let why = $state('');
	let until = $state('');
	let busy = $state(false);
	let wrong = $state('');
	let refused = $state.raw<Refused[]>([]);
	const many = $derived(ids.length === 1 ? 'one packet' : `${ids.length} packets`);

	function ask(what: 'dispose' | 'keep') {
		[why, until, wrong] = ['', '', ''];
		asking = what;
		open = true;
	}

	interface Came {
		gone?: string[];
		agreed?: string[];
		done?: string[];
		refused: Refused[];
	}
	async function run() {
		busy = true;
		const came =
			asking === 'dispose'
				? await post<Came>('/records/dispose', { ids, why }, 'Nothing went.')
				: await post<Came>('/records/do', { do: 'keep', ids, until, why }, 'Nothing was changed.');
		busy = false;
		if ('wrong' in came) return void (wrong = came.wrong);
		open = false;
		refused = came.refused;
		await ondone();
		const said = [
			came.gone?.length ? `${came.gone.length} disposed of; their certificate is under Gone` : '',
			came.agreed?.length ? `${came.agreed.length} wait for somebody else’s word` : '',
			came.done?.length ? `${came.done.length} kept longer` : ''
		].filter(Boolean);
		if (said.length > 0) tell(said.join('. '));
	}
</script>

<button type="button" class="button" onclick={() => ask('keep')}>Keep longer…</button>
<button type="button" class="button grave" onclick={() => ask('dispose')}>Dispose of…</button>

<DialogBox bind:open place="top-28 left-1/2 w-[480px] -translate-x-1/2">
	<Dialog.Title class="font-serif text-lg font-semibold"
		>{asking === 'dispose' ? `Dispose of ${many}` : `Keep ${many} longer`}</Dialog.Title
	>
	<Dialog.Description class="pt-1 pb-3"
		>{asking === 'dispose'
			? `Documents, answers, letters and names go for good; nobody can bring them back. That they were, and that nothing was changed, stays provable, and a sealed certificate says what went.${two ? ' Somebody else has to agree before they go.' : ''}`
			: 'They stay until that day, whatever the rules say. The reason stands in the record of each.'}</Dialog.Description
	>
	<form
		class="grid gap-3"
		onsubmit={(event) => {
			event.preventDefault();
			void run();
		}}
	>
		{#if asking === 'keep'}<Day label="Until" value={until} required onchoose={(day) => (until = day)} />{/if}
		<label>Reason<textarea class="input mt-1 h-20" required maxlength="2000" bind:value={why}></textarea></label>
		<p class="wrong empty:hidden" role="alert">{wrong}</p>
		<p class="flex gap-2">
			<button class="button {asking === 'dispose' ? 'grave' : 'primary'}" disabled={busy}
				>{busy ? 'Working…' : asking === 'dispose' ? 'Dispose of them' : 'Keep them'}</button
			><Dialog.Close class="button">Leave them</Dialog.Close>
		</p>
	</form>
</DialogBox>
<Refusals bind:refused />
