<script lang="ts">
	import { enhance } from '$app/forms';
	import Proof from '$lib/ui/account/Proof.svelte';

	let { data, form } = $props();
	const LEVELS = {
		owner: 'does everything (owner)',
		preparer: 'prepares and sends (preparer)',
		viewer: 'sees (viewer)'
	};
	const said = $derived((form ?? {}) as Record<string, string | undefined>);
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
							<details class="relative">
								<summary class="button cursor-pointer list-none" aria-label="Change the account of {person.name}"
									>Change</summary
								>
								<div
									class="absolute right-0 z-10 mt-1 grid w-72 gap-3 rounded-sm border border-hairline bg-sheet p-4 shadow-(--float)"
								>
									<form method="POST" action="?/level" use:enhance class="grid gap-2">
										<input type="hidden" name="id" value={person.id} />
										<label
											>They may<select class="input mt-1" name="level" value={person.level} disabled={!data.proved}>
												{#each Object.entries(LEVELS) as [level, name] (level)}<option value={level}>{name}</option
													>{/each}
											</select></label
										>
										<button class="button" disabled={!data.proved}>Change the level</button>
									</form>
									{#snippet act(action: string, label: string, grave = false)}
										<form method="POST" action="?/{action}" use:enhance>
											<input type="hidden" name="id" value={person.id} />
											<button class="button w-full {grave ? 'grave' : ''}" disabled={!data.proved}>{label}</button>
										</form>
									{/snippet}
									{#if person.invited}{@render act('again', 'Send the invitation again')}{/if}
									{#if person.second && !me}{@render act('factors', 'Take the second factor away')}{/if}
									{#if !me}{@render act('sessions', 'Sign them out everywhere')}{@render act(
											'close',
											'Close the account',
											true
										)}{/if}
								</div>
							</details>
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
			<label
				>They may<select
					class="input mt-1"
					name="level"
					value={said['form'] === 'invite' ? (said['level'] ?? 'preparer') : 'preparer'}
				>
					{#each Object.entries(LEVELS).reverse() as [level, name] (level)}<option value={level}>{name}</option>{/each}
				</select></label
			>
			{#if said['form'] === 'invite'}<p role="alert" class={said['say'] ? 'wrong' : 'text-moss'}>
					{said['say'] ?? said['done']}
				</p>{/if}
			<p><button class="button primary" disabled={!data.proved}>Invite</button></p>
		</form>
	</section>
</main>
