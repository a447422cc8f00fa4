<script lang="ts">
	import { enhance } from '$app/forms';
	import { tick } from 'svelte';
	import Choice from '$lib/ui/parts/Choice.svelte';
	import Menu from '$lib/ui/parts/Menu.svelte';
	import type { MenuEntry } from '$lib/ui/parts/menu';
	import Proof from '$lib/ui/account/Proof.svelte';

	let { data, form } = $props();
	const LEVELS = {
		owner: 'does everything (owner)',
		preparer: 'prepares and sends (preparer)',
		viewer: 'sees (viewer)'
	};
	const said = $derived((form ?? {}) as Record<string, string | undefined>);
	type Person = (typeof data.people)[number];
	let doing = $state<HTMLFormElement>();
	let deed = $state({ action: 'level', id: '', level: '' });

	async function act(action: string, id: string, level = '') {
		deed = { action, id, level };
		await tick();
		doing?.requestSubmit();
	}

	/** The levels they haven't got, then what else can be done with their account. */
	const deeds = (person: Person, me: boolean): MenuEntry[] => [
		...Object.entries(LEVELS)
			.filter(([level]) => level !== person.level)
			.map(([level, name]) => ({
				name: `Make ${level}`,
				note: name.replace(/ \(.*/, ''),
				run: () => act('level', person.id, level)
			})),
		...(person.invited ? [{ name: 'Send the invitation again', run: () => act('again', person.id) }] : []),
		...(person.second && !me ? [{ name: 'Take the second factor away', run: () => act('factors', person.id) }] : []),
		...(me
			? []
			: [
					{ name: 'Sign them out everywhere', run: () => act('sessions', person.id) },
					{ name: 'Close the account', run: () => act('close', person.id), grave: true }
				])
	];
	const standing = (person: (typeof data.people)[number]) =>
		person.closed
			? 'closed'
			: person.invited
				? 'invited, no password yet'
				: person.second
					? 'with a second factor'
					: '';
</script>

<svelte:head><title>Accounts · Settings · Pellum</title></svelte:head>
<form method="POST" action="?/{deed.action}" use:enhance bind:this={doing} class="hidden">
	<input type="hidden" name="id" value={deed.id} />
	<input type="hidden" name="level" value={deed.level} />
</form>
<main id="main" class="mx-auto grid max-w-5xl gap-10 px-6 py-6 md:grid-cols-[3fr_2fr]">
	<section aria-labelledby="people">
		<h1 id="people" class="border-b border-hairline pb-2 text-[19px]">People of the office</h1>
		{#if !data.proved}<Proof what="Accounts are changed only right after you have shown that it’s you." />{/if}
		<ul>
			{#each data.people as person (person.id)}
				{@const me = person.id === data.me.id}
				<li class="border-b border-hairline py-2.5">
					<div class="flex flex-wrap items-center gap-3">
						<div class="min-w-0 flex-1">
							<p class="font-semibold {person.closed ? 'line-through' : ''}">{person.name}{me ? ', you' : ''}</p>
							<p class="text-[14px] wrap-anywhere text-quiet">
								{[person.email, LEVELS[person.level], standing(person)].filter(Boolean).join(' · ')}
							</p>
						</div>
						{#if !person.closed}
							<Menu
								label="Change"
								hint="Change the account of {person.name}"
								disabled={!data.proved}
								entries={deeds(person, me)}
							/>
						{/if}
					</div>
					{#if said['form'] === 'one' && said['at'] === person.id}<p
							role="alert"
							class="pt-1 {said['say'] ? 'wrong' : 'text-moss'}"
						>
							{said['say'] ?? said['done']}
						</p>{/if}
				</li>
			{/each}
		</ul>
	</section>
	<section aria-labelledby="invite">
		<h2 id="invite" class="border-b border-hairline pb-2 text-[19px]">Invite somebody</h2>
		<p class="pt-2 text-[14px] text-quiet">
			They get a letter and choose a password themselves; nobody else ever knows it.
		</p>
		<form method="POST" action="?/invite" use:enhance class="grid gap-3 pt-2">
			<label
				>Name<input
					class="input mt-1"
					name="name"
					required
					maxlength="120"
					value={said['form'] === 'invite' ? (said['newName'] ?? '') : ''}
				/></label
			>
			<label
				>E-mail<input
					class="input mt-1"
					name="email"
					type="email"
					required
					value={said['form'] === 'invite' ? (said['newEmail'] ?? '') : ''}
				/></label
			>
			<Choice
				label="They may"
				name="level"
				value={said['form'] === 'invite' ? (said['level'] ?? 'preparer') : 'preparer'}
				options={Object.entries(LEVELS).reverse()}
			/>
			{#if said['form'] === 'invite'}<p role="alert" class={said['say'] ? 'wrong' : 'text-moss'}>
					{said['say'] ?? said['done']}
				</p>{/if}
			<p><button class="button primary" disabled={!data.proved}>Invite</button></p>
		</form>
	</section>
</main>
