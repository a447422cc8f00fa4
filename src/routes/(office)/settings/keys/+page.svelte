<script lang="ts">
	import { enhance } from '$app/forms';
	import { keepFilled } from '$lib/ui/forms';
	import KeyList from '$lib/ui/settings/KeyList.svelte';
	import Methods from '$lib/ui/settings/Methods.svelte';
	import OwnKey from '$lib/ui/settings/OwnKey.svelte';
	import { day } from '$lib/ui/dates';

	let { data, form } = $props();
	const zone = $derived(data.organisation.zone);
	const wrong = (of: string) => (form?.form === of && 'say' in form ? (form.say ?? '') : '');
</script>

<svelte:head><title>Keys · Settings · Pellum</title></svelte:head>
<main id="main" class="mx-auto max-w-5xl px-6 py-6">
	<h1 class="max-w-2xl border-b border-hairline pb-2 text-[19px]">Keys that seal</h1>
	<p class="max-w-2xl py-2 text-quiet">
		What is made here is made anew two years before its certificate ends; what it has sealed is proven by the
		time-stamp.
	</p>
	<KeyList
		keys={data.keys}
		{zone}
		wrong={wrong('withdraw')}
		done={form?.form === 'withdraw' && 'listed' in form ? { listed: form.listed === true } : null}
	/>
	<OwnKey
		taken={data.keys.find((one) => one.own && one.now) ?? null}
		wrong={wrong('own')}
		tried={form?.form === 'own' && 'tried' in form ? (form.tried ?? null) : null}
		used={form?.form === 'own' && 'used' in form ? (form.used ?? '') : ''}
		lists={form?.form === 'lists' ? { say: wrong('lists'), until: 'until' in form ? (form.until ?? '') : '' } : null}
	/>
	<section aria-labelledby="lasting" class="max-w-2xl pt-8">
		<h2 id="lasting" class="border-b border-hairline pb-1 text-[17px]">How long copies prove themselves</h2>
		<p class="pt-3">
			{data.lasting.first === null
				? 'There are no sealed copies yet.'
				: `The first ends on ${day(data.lasting.first, zone, data.now)}.`}
			{data.lasting.due === 0
				? 'None wants another time-stamp now.'
				: data.lasting.due === 1
					? 'One packet wants another time-stamp, which is set by itself.'
					: `${data.lasting.due} packets want another time-stamp, which is set by itself.`}
		</p>
		{#if data.lasting.due > 0}
			<form method="POST" action="?/stamp" class="pt-2" use:enhance={keepFilled}>
				<button class="button">Set them now</button>
			</form>
		{/if}
		<p class="pt-1 text-moss empty:hidden" role="status">
			{form?.form === 'stamp' && 'asked' in form
				? 'They are being set. Each stands in its packet’s record when it is there.'
				: ''}
		</p>
		<p class="pt-1 text-[14px] text-quiet">
			Two years before a copy’s last time-stamp ends, or the method it rests on, another is set over all of it.
		</p>
	</section>
	<Methods methods={data.methods} wrong={wrong('method')} done={form?.form === 'method' && 'done' in form} />
</main>
