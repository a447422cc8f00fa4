<script lang="ts">
	import { enhance } from '$app/forms';
	import Choice from '../parts/Choice.svelte';
	import { POWERS, type Power } from '../../core/access';

	/** Who belongs to a closed folder and what each may there; owners of the office need not be named. */
	let {
		folder,
		people,
		able
	}: {
		folder: { name: string; members: { account: string; name: string; power: Power }[] };
		people: { id: string; name: string; level: string }[];
		able: boolean;
	} = $props();

	const forms = $state<Record<string, HTMLFormElement>>({});
	const MAY: Record<Power, string> = {
		sees: 'sees',
		prepares: 'sees and prepares',
		judges: 'sees, prepares and judges identity'
	};
	const levelOf = (account: string) => people.find((one) => one.id === account)?.level;
	const others = $derived(people.filter((one) => !folder.members.some(({ account }) => account === one.id)));
</script>

{#snippet powers(name: string, account: string, power: Power | '', label: string)}
	<form method="POST" action="?/member" use:enhance class="flex items-center gap-2" bind:this={forms[account]}>
		<input type="hidden" name="folder" value={folder.name} />
		<input type="hidden" name="account" value={account} />
		<Choice
			label="What {name} may in {folder.name}"
			unseen
			narrow
			name="power"
			disabled={!able}
			value={power}
			options={[
				...(power === '' ? [['', label] as const] : []),
				...POWERS.filter((one) => levelOf(account) !== 'viewer' || one === 'sees').map(
					(one) => [one, MAY[one]] as const
				),
				...(power === '' ? [] : [['none', 'no member any more'] as const])
			]}
			onchoose={() => forms[account]?.requestSubmit()}
		/>
	</form>
{/snippet}

<ul class="pt-2">
	{#each folder.members as { account, name, power } (account)}
		<li class="flex flex-wrap items-center justify-between gap-3 py-1">
			<span>{name}</span>{@render powers(name, account, power, '')}
		</li>
	{:else}<li class="py-1 text-[14px] text-quiet">Nobody yet: only owners of the office see into it.</li>{/each}
	{#each others as { id, name } (id)}
		<li class="flex flex-wrap items-center justify-between gap-3 py-1 text-quiet">
			<span>{name}</span>{@render powers(name, id, '', 'not a member')}
		</li>
	{/each}
</ul>
