<script lang="ts">
	import { enhance } from '$app/forms';
	import { keepFilled } from '../forms';
	import { moment } from '../dates';
	import Check from '../parts/Check.svelte';
	import Shown from './Shown.svelte';

	/** API keys: made with what they may, shown once, ended. */
	let {
		keys,
		rights,
		proved,
		zone,
		said
	}: {
		keys: {
			id: string;
			name: string;
			rights: string[];
			madeAt: string;
			usedAt: string | null;
			endedAt: string | null;
		}[];
		rights: readonly (readonly [right: string, says: string])[];
		proved: boolean;
		zone: string;
		said: { form?: string; say?: string; shown?: string };
	} = $props();
</script>

<ul>
	{#each keys as key (key.id)}
		<li class="flex items-center gap-3 border-b border-hairline py-2 {key.endedAt ? 'text-quiet' : ''}">
			<div class="min-w-0 flex-1">
				<p class="wrap-anywhere"><b>{key.name}</b> may {key.rights.join(', ')}</p>
				<p class="text-[14px] text-quiet">
					since {moment(key.madeAt, zone)}{key.endedAt
						? `, ended ${moment(key.endedAt, zone)}`
						: key.usedAt
							? `, last used ${moment(key.usedAt, zone)}`
							: ', not used yet'}
				</p>
			</div>
			{#if !key.endedAt}
				<form method="POST" action="?/end-key" use:enhance>
					<input type="hidden" name="id" value={key.id} />
					<button class="button grave" aria-label="End the key {key.name}">End</button>
				</form>
			{/if}
		</li>
	{:else}
		<li class="py-2 font-serif text-quiet">No keys yet. A program that comes for you needs one.</li>
	{/each}
</ul>
<form
	method="POST"
	action="?/key"
	class="grid gap-2 pt-3"
	use:enhance={said.form === 'key' && said.say ? keepFilled : undefined}
>
	<label
		>Called<input
			class="input mt-1"
			name="name"
			maxlength="80"
			required
			placeholder="such as: personnel list, each night"
		/></label
	>
	<fieldset class="grid gap-1.5">
		<legend class="pb-1">It may</legend>
		{#each rights as [right, says] (`${right} ${keys.length}`)}
			<Check name="right" value={right} label="{right}: {says}" />
		{/each}
	</fieldset>
	<p><button class="button" disabled={!proved}>Make a key</button></p>
	{#if said.form === 'key'}
		{#if said.shown}<Shown what="This is the key." secret={said.shown} />{:else}<p class="wrong" role="alert">
				{said.say}
			</p>{/if}
	{/if}
</form>
