<script lang="ts">
	import { enhance } from '$app/forms';
	import { moment } from '../dates';
	import Check from '../parts/Check.svelte';
	import More from '../parts/More.svelte';
	import Shown from './Shown.svelte';

	interface Hook {
		id: string;
		address: string;
		kinds: string[];
		failures: number;
		restsUntil: string | null;
		deliveries: {
			id: number;
			packet: string;
			reference: string;
			kind: string;
			at: string;
			state: string;
			tries: number;
			status: number | null;
			answer: string;
		}[];
	}
	/** Addresses that are told of what happens, and what each was told. */
	let {
		hooks,
		kinds,
		proved,
		zone,
		said,
		receiver
	}: {
		hooks: Hook[];
		kinds: readonly string[];
		proved: boolean;
		zone: string;
		said: { form?: string; say?: string; shown?: string };
		/** the demo's own, to try it with */
		receiver: string | null;
	} = $props();
	let address = $state('');

	const says = (one: Hook['deliveries'][number]): string =>
		one.state === 'delivered'
			? `delivered, answered ${one.status}`
			: `${one.state}${one.tries > 0 ? `, ${one.tries} ${one.tries === 1 ? 'try' : 'tries'}: ${[one.status, one.answer].filter(Boolean).join(' ')}` : ''}`;
</script>

{#each hooks as hook (hook.id)}
	<article class="border-b border-hairline py-3" aria-label={hook.address}>
		<div class="flex flex-wrap items-start gap-2">
			<div class="min-w-0 flex-1">
				<p class="font-mono text-[14px] wrap-anywhere">{hook.address}</p>
				<p class="text-[14px] text-quiet">{hook.kinds.join(', ')}</p>
				{#if hook.restsUntil}<p class="text-[14px] text-copper" role="status">
						It does not answer as it should ({hook.failures} in a row). Tried again {moment(hook.restsUntil, zone)}.
					</p>{/if}
			</div>
			<form method="POST" action="?/renew" use:enhance>
				<input type="hidden" name="id" value={hook.id} /><button
					class="button"
					disabled={!proved}
					aria-label="New secret for {hook.address}">New secret</button
				>
			</form>
			<form method="POST" action="?/end-hook" use:enhance>
				<input type="hidden" name="id" value={hook.id} /><button class="button grave" aria-label="End {hook.address}"
					>End</button
				>
			</form>
		</div>
		<More label="What it was told, {hook.deliveries.length === 50 ? 'the last 50' : hook.deliveries.length}">
			<div class="overflow-x-auto">
				<table class="list">
					<thead><tr><th>What</th><th>Packet</th><th>When</th><th>How it went</th><th></th></tr></thead>
					<tbody>
						{#each hook.deliveries as one (one.id)}
							<tr>
								<td>{one.kind}</td>
								<td><a href="/packets/{one.packet}">{one.reference}</a></td>
								<td class="whitespace-nowrap">{moment(one.at, zone)}</td>
								<td class="wrap-anywhere">{says(one)}</td>
								<td
									><form method="POST" action="?/again" use:enhance>
										<input type="hidden" name="id" value={hook.id} /><input
											type="hidden"
											name="delivery"
											value={one.id}
										/><button class="plain" aria-label="Tell {one.kind} of {one.reference} again">again</button>
									</form></td
								>
							</tr>
						{:else}<tr><td colspan="5" class="text-quiet">Nothing yet.</td></tr>{/each}
					</tbody>
				</table>
			</div>
		</More>
	</article>
{/each}
<form method="POST" action="?/hook" use:enhance class="grid gap-2 pt-3">
	<label
		>Address<input
			class="input mt-1 font-mono"
			name="address"
			type="url"
			maxlength="2000"
			required
			placeholder="https://"
			bind:value={address}
		/></label
	>
	{#if receiver}<p>
			<button class="plain" type="button" onclick={() => (address = receiver)}>the demo’s own receiver</button>
		</p>{/if}
	<fieldset class="grid gap-1.5 sm:grid-cols-2">
		<legend class="pb-1">It is told of</legend>
		{#each kinds as kind (kind)}<Check name="kind" value={kind} label={kind} checked />{/each}
	</fieldset>
	<p><button class="button" disabled={!proved}>Have it told</button></p>
	{#if said.form === 'hook'}
		{#if said.shown}<Shown what="This is the secret that messages are signed with." secret={said.shown} />{:else}<p
				class="wrong"
				role="alert"
			>
				{said.say}
			</p>{/if}
	{/if}
</form>
