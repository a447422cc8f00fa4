<script lang="ts">
	import NewPassword from '$lib/ui/frame/NewPassword.svelte';
	import { enhance } from '$app/forms';
	import Codes from '$lib/ui/account/Codes.svelte';
	import Passkeys from '$lib/ui/account/Passkeys.svelte';
	import Proof from '$lib/ui/account/Proof.svelte';
	import { moment } from '$lib/ui/dates';

	let { data, form } = $props();
	const said = $derived((form ?? {}) as Record<string, unknown>);
</script>

<svelte:head><title>Your account · Pellum</title></svelte:head>
<main id="main" class="mx-auto grid max-w-5xl gap-10 px-6 py-6 md:grid-cols-2">
	<section aria-labelledby="you">
		<h1 id="you" class="border-b border-hairline pb-2 text-[19px]">Your account</h1>
		<p class="pt-3"><b>{data.me.name}</b>, {data.me.email}</p>
		<p class="text-quiet">{data.me.level}</p>
		<p class="pt-1">
			<a class="text-thread underline" href="/account/programs">Other programs: keys, messages, calendar</a>
		</p>
		{#if data.mustSetUp}
			<p class="mt-3 border-l-4 border-brick bg-linen px-3 py-2" role="status">
				Your level wants a second factor. Set one up here; then everything else opens.
			</p>
		{/if}
		{#if !data.proved}<Proof
				what="What keeps others out is changed only right after you have shown that it’s you."
			/>{/if}
		<h2 class="pt-6 text-[17px]">Second factor</h2>
		<p class="pt-1 text-[14px] text-quiet">
			{data.required ? 'Wanted for your level.' : 'Not wanted for your level, and still worth it:'} whoever learns your password
			gets no further than you let them.
		</p>
		<Passkeys passkeys={data.passkeys} possible={data.possible} proved={data.proved} />
		<Codes factors={data.factors} proved={data.proved} {said} />
	</section>
	<div class="grid content-start gap-8">
		<section aria-labelledby="morning">
			<h2 id="morning" class="border-b border-hairline pb-2 text-[19px]">Morning letter</h2>
			<p class="py-2 text-[14px] text-quiet">
				What needs you and what will likely be late, at seven on working days. None comes where nothing does.
			</p>
			<form method="POST" action="?/morning" use:enhance>
				<input type="hidden" name="morning" value={data.morning ? '' : 'on'} />
				<p role="status" class="pb-2">{data.morning ? 'It comes to your address.' : 'It does not come.'}</p>
				<p><button class="button">{data.morning ? 'End it' : 'Have it sent'}</button></p>
			</form>
		</section>
		<section aria-labelledby="password">
			<h2 id="password" class="border-b border-hairline pb-2 text-[19px]">Password</h2>
			<form method="POST" action="?/password" use:enhance class="grid gap-3 pt-3">
				<label
					>Your password now<input
						class="input mt-1"
						name="before"
						type="password"
						autocomplete="current-password"
						maxlength="512"
						required
					/></label
				>
				<NewPassword label="A new one, twelve characters or more" />
				{#if said['form'] === 'password'}<p role="alert" class={said['say'] ? 'wrong' : 'text-moss'}>
						{said['say'] ?? 'Changed. You were signed out everywhere else.'}
					</p>{/if}
				<p><button class="button primary">Change it</button></p>
			</form>
		</section>
		<section aria-labelledby="sessions">
			<h2 id="sessions" class="border-b border-hairline pb-2 text-[19px]">Sessions</h2>
			<ul>
				{#each data.sessions as one (one.id)}
					<li class="flex items-center gap-3 border-b border-hairline py-2">
						<div class="min-w-0 flex-1">
							<p class="font-semibold">{one.device}{one.id === data.here ? ', here' : ''}</p>
							<p class="text-[14px] text-quiet">
								from {one.address || 'an unknown address'}, since {moment(one.createdAt, data.organisation.zone)}, last
								used {moment(one.seenAt, data.organisation.zone)}
							</p>
						</div>
						{#if one.id !== data.here}
							<form method="POST" action="?/end" use:enhance>
								<input type="hidden" name="id" value={one.id} /><button
									class="button"
									aria-label="End the session {one.device}, {one.address}">End</button
								>
							</form>
						{/if}
					</li>
				{/each}
			</ul>
			{#if data.sessions.length > 1}
				<form method="POST" action="?/end" use:enhance class="pt-3">
					<button class="button">End all others</button>
				</form>
			{/if}
		</section>
	</div>
</main>
