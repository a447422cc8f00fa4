<script lang="ts">
	import Choice from '../../parts/Choice.svelte';
	import type { IdentityCheck, PlanPerson } from '../../../core/packet';
	import { post } from '../../post';
	import type { Bench } from '../bench.svelte';
	import type { SetPerson } from '../../../core/plan';

	/** How somebody proves who they are before anything is shown to them. */
	let { bench, person, set }: { bench: Bench; person: PlanPerson; set: SetPerson } = $props();

	const by = $derived(person.check?.by ?? '');
	const locked = $derived(bench.isPersonLocked(person.id, 'check'));
	const known = $derived(person.check?.by === 'code' && person.check.hash !== '');
	let code = $state('');
	let say = $state('');

	function choose(way: string) {
		say = '';
		const check: IdentityCheck | undefined =
			way === 'code' ? { by: 'code', hash: '' } : way === 'mail' || way === 'text' ? { by: way } : undefined;
		set('proof of identity', { check }, false);
	}

	/** The plan keeps a code only as a salted hash, which the server makes. */
	async function keep() {
		const done = await post<{ hash: string }>(
			'/bench/code',
			{ code: code.trim() },
			'The code is not set; what you typed is still here.'
		);
		if ('wrong' in done) return void (say = done.wrong);
		set('access code', { check: { by: 'code', hash: done.hash } }, false);
		say = `Set. Tell ${person.name || 'them'} “${code.trim()}” yourself, another way than by mail: it can’t be looked up here again.`;
		code = '';
	}
</script>

<Choice
	label="Proves who they are"
	id="person-check"
	disabled={locked}
	value={by}
	options={[
		['', 'not asked: the link is enough'],
		['code', 'by an access code I tell them'],
		['mail', 'by a one-time code sent by mail'],
		['text', 'by a one-time code sent by text']
	]}
	onchoose={choose}
/>
{#if by === 'code' && !bench.asTemplate}
	<form
		class="-mt-1"
		onsubmit={(event) => {
			event.preventDefault();
			void keep();
		}}
	>
		<label for="person-code">{known ? 'A new access code' : 'The access code'}</label>
		<p class="flex gap-2 pt-1">
			<input
				id="person-code"
				class="input font-mono"
				minlength="4"
				maxlength="40"
				required
				autocomplete="off"
				spellcheck="false"
				bind:value={code}
			/><button class="button">Set</button>
		</p>
		<p class="pt-1 text-[13px] text-quiet" role="status">
			{say || (known ? 'A code is set.' : 'Four characters or more; blanks and capitals don’t matter.')}
		</p>
	</form>
{:else if by === 'code'}<p class="-mt-2 text-[13px] text-quiet">Whoever uses the template sets the code.</p>{/if}
