<script lang="ts">
	import OneOf from '../parts/OneOf.svelte';
	import { useWords } from '../signing/words';
	import Formatted from './Formatted.svelte';
	import type { Visit } from './visit.svelte';
	import Who from './Who.svelte';

	/** What a visitor sees first: what it is, how long it takes, who they are, and for whom it is. */
	let {
		visit,
		heading,
		html,
		asksCode,
		busy,
		wrong,
		ready,
		onbegin
	}: {
		visit: Visit;
		heading: string;
		html: string;
		/** the office has told visitors a code */
		asksCode: boolean;
		busy: boolean;
		wrong: string;
		ready: boolean;
		onbegin: (given: { code: string; website: string }) => void;
	} = $props();

	const words = useWords();
	let code = $state('');
	/** filled in by what fills in everything */
	let website = $state('');
</script>

<h2 class="pb-2 text-xl" tabindex="-1">{heading}</h2>
<Formatted {html} />
<p class="pb-4 text-quiet">{words()('intake.long', { n: visit.of.setting.pages.length })}</p>
<form
	onsubmit={(event) => {
		event.preventDefault();
		onbegin({ code, website });
	}}
	novalidate
>
	{#if visit.of.setting.representative === 'may'}
		<OneOf
			label={words()('intake.who')}
			bind:value={() => (visit.prepares ? 'other' : 'self'), (value) => (visit.prepares = value === 'other')}
			options={[
				['self', words()('intake.self')],
				['other', words()('intake.other')]
			]}
		/>
	{/if}
	<Who bind:who={visit.visitor} legend={words()('intake.you')} wrong={visit.wrongWho(visit.visitor, true)} />
	{#if visit.prepares}
		<Who bind:who={visit.them} legend={words()('intake.them')} wrong={visit.wrongWho(visit.them, false)} />
	{/if}
	{#if asksCode && !visit.token}
		<label class="block py-3"
			>{words()('intake.door')}<input
				class="input mt-1 min-h-[44px]!"
				autocomplete="off"
				maxlength="40"
				dir="ltr"
				bind:value={code}
			/></label
		>
	{/if}
	<label class="trap" aria-hidden="true"
		>Website<input name="website" tabindex="-1" autocomplete="off" bind:value={website} /></label
	>
	<p class="wrong empty:hidden" role="alert">{wrong}</p>
	<p class="pt-3">
		<button class="button primary large w-full sm:w-auto" disabled={busy || !ready}
			>{words()(visit.token ? 'code.go' : 'intake.begin')}</button
		>
	</p>
</form>

<style>
	.trap {
		position: absolute;
		inset-inline-start: -9999px;
	}
</style>
