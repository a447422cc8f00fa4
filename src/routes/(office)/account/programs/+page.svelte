<script lang="ts">
	import { enhance } from '$app/forms';
	import Proof from '$lib/ui/account/Proof.svelte';
	import { moment } from '$lib/ui/dates';
	import { keepFilled } from '$lib/ui/forms';
	import { keepCurrent } from '$lib/ui/frame/live.svelte';
	import Hooks from '$lib/ui/programs/Hooks.svelte';
	import Keys from '$lib/ui/programs/Keys.svelte';
	import Shown from '$lib/ui/programs/Shown.svelte';

	let { data, form } = $props();
	const said = $derived((form ?? {}) as { form?: string; say?: string; shown?: string });
	const zone = $derived(data.organisation.zone);
	$effect(() => keepCurrent());
</script>

<svelte:head><title>Other programs · Pellum</title></svelte:head>
<main id="main" class="mx-auto grid max-w-6xl gap-10 px-6 py-6 md:grid-cols-2">
	<div class="grid content-start gap-8">
		<section aria-labelledby="keys">
			<h1 id="keys" class="border-b border-hairline pb-2 text-[19px]">Other programs</h1>
			<p class="pt-3">
				A program that comes with one of your keys does what you may, as far as the key permits; the record says by
				which key. It asks <span class="font-mono text-[14px] wrap-anywhere">{data.api}</span>, as
				<a class="text-thread underline" href="/account/programs/api">the description</a> tells.
			</p>
			{#if !data.proved}<Proof what="Keys and secrets are made only right after you have shown that it’s you." />{/if}
			<h2 class="pt-5 text-[17px]">API keys</h2>
			<Keys keys={data.keys} rights={data.rights} proved={data.proved} {zone} {said} />
		</section>
		<section aria-labelledby="feed">
			<h2 id="feed" class="border-b border-hairline pb-2 text-[19px]">Your calendar, by a secret address</h2>
			<p class="pt-3">
				Last days and terms of what you may see, for a calendar program that asks for them now and then. Whoever has the
				address sees them: it is yours alone.
			</p>
			<div class="flex flex-wrap items-center gap-2 pt-3">
				{#if data.feed}<p class="min-w-0 flex-1 text-quiet">There is one since {moment(data.feed, zone)}.</p>{/if}
				<form method="POST" action="?/feed" use:enhance>
					<button class="button" disabled={!data.proved}>{data.feed ? 'Another address' : 'Make an address'}</button>
				</form>
				{#if data.feed}<form method="POST" action="?/end-feed" use:enhance>
						<button class="button grave">End it</button>
					</form>{/if}
			</div>
			{#if said.form === 'feed' && said.shown}<Shown
					what="This is the address{data.feed ? '; one from before leads nowhere any more' : ''}."
					secret={said.shown}
				/>{/if}
		</section>
	</div>
	<section aria-labelledby="hooks">
		<h2 id="hooks" class="border-b border-hairline pb-2 text-[19px]">Told of what happens</h2>
		<p class="pt-3">
			An address of another program, which is sent a signed message when something happens to packets that you may see:
			in their order, tried for three days where it does not answer.
		</p>
		<Hooks hooks={data.hooks} kinds={data.kinds} proved={data.proved} {zone} {said} receiver={data.receiver} />
		{#if data.owner}
			<h3 class="pt-6 text-[16px]">Hosts of your own network</h3>
			<form method="POST" action="?/hosts" use:enhance={keepFilled} class="grid gap-2 pt-1">
				<label
					><span class="text-[14px] text-quiet"
						>What leads into your own network is told of nothing, unless it stands here</span
					><textarea
						class="input mt-1 h-16 font-mono"
						name="hosts"
						maxlength="4000"
						placeholder="files.office.local:8443">{data.hosts.join('\n')}</textarea
					></label
				>
				<p><button class="button" disabled={!data.proved}>Keep the list</button></p>
				{#if said.form === 'hosts'}<p role="alert" class={said.say ? 'wrong' : 'text-moss'}>
						{said.say ?? 'Kept.'}
					</p>{/if}
			</form>
		{/if}
	</section>
</main>
