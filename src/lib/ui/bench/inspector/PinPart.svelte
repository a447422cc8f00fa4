<script lang="ts">
	import What from '../../help/What.svelte';
	import Choice from '../../parts/Choice.svelte';
	import type { Field } from '../../../core/packet';
	import type { Pin } from '../../../core/page';
	import type { Bench } from '../bench.svelte';
	import { landmarkWords, phrasePlaces, pinned } from '../fitting';

	/** What the chosen fields are pinned to, so that they follow when the document is exchanged for another version. */
	let { bench, fields }: { bench: Bench; fields: Field[] } = $props();

	const ids = $derived(fields.map((f) => f.id));
	const one = $derived(fields[0]!);
	const way = $derived(
		fields.every((f) => (f.pin?.by ?? 'words') === (one.pin?.by ?? 'words')) ? (one.pin?.by ?? 'words') : ''
	);
	const words = $derived(fields.length === 1 && !one.pin ? landmarkWords(bench, one) : []);
	const phrase = $derived(one.pin?.by === 'phrase' ? one.pin : null);
	const places = $derived(phrase ? phrasePlaces(bench, one, phrase.text) : []);
	let say = $state('');

	$effect(() => {
		bench.showPins = true;
		return () => {
			bench.showPins = false;
			bench.marking = null;
		};
	});
	// what was said is about the fields that were chosen then
	$effect(() => {
		void ids.join(' ');
		say = '';
	});

	function pin(to: 'words' | 'page' | { phrase: string }) {
		const next = pinned(bench, ids, to);
		const done = next.filter((field, i) => field !== bench.plan.fields[i]).length;
		say =
			typeof to === 'object' && done < ids.length
				? `“${to.phrase}” was not found for ${ids.length - done} of them.`
				: '';
		if (done > 0) bench.change(ids.length === 1 ? 'pin' : `pin ${ids.length} fields`, { ...bench.plan, fields: next });
	}
	function mark() {
		const paper = one.paper;
		bench.missed = false;
		bench.marking = (phrase, where) => {
			if (where === paper) pin({ phrase });
			else say = 'Mark words of the field’s own document.';
		};
	}
	function which(nth: number) {
		if (!phrase) return;
		const chosen: Pin = { ...phrase, nth };
		bench.change('pin', {
			...bench.plan,
			fields: bench.plan.fields.map((f) => (f.id === one.id ? { ...f, pin: chosen } : f))
		});
	}
</script>

<fieldset class="grid gap-2">
	<legend class="flex items-center gap-1 pb-1"
		>Pinned to <span class="text-quiet">what it follows in another version</span>
		<What topic="pins" of="pins" /></legend
	>
	<Choice
		label="Pinned to"
		unseen
		value={way}
		options={[
			...(way === '' ? [['', 'several ways'] as const] : []),
			['words', 'the words around it, by itself'],
			['phrase', 'a phrase…'],
			['page', 'the page']
		]}
		onchoose={(to) => {
			if (to === 'phrase') mark();
			else if (to !== '') pin(to as 'words' | 'page');
		}}
	/>
	{#if bench.marking}
		<p role="status" class="text-thread">
			{bench.missed ? 'No words stand there.' : ''} Draw a band over the words on the page.
			<button class="plain" onclick={() => (bench.marking = null)}>Leave it</button>
		</p>
	{:else if words.length > 0}
		<p class="text-quiet">By itself: {words.map((word) => `“${word.text}”`).join(', ')}, underlined on the page.</p>
	{:else if phrase && fields.length === 1}
		<p>
			“{phrase.text}”{places.length === 1
				? ''
				: places.length === 0
					? ' does not stand in this document'
					: ` stands ${places.length} times`}
		</p>
		{#if places.length > 1}
			<Choice
				label="Which of them"
				value={String(phrase.nth)}
				options={places.map((place, i) => [String(i + 1), `${i + 1}, on page ${place.page + 1}`])}
				onchoose={(nth) => which(Number(nth))}
			/>
		{/if}
	{:else if fields.length === 1 && way === 'words'}
		<p class="text-quiet">There are no words on this page; it keeps its place on the page.</p>
	{/if}
	{#if phrase || bench.marking}
		<label
			>Phrase <span class="text-quiet">marked, or written</span><input
				class="input mt-1"
				maxlength="200"
				value={phrase?.text ?? ''}
				onchange={(e) => e.currentTarget.value.trim() !== '' && pin({ phrase: e.currentTarget.value.trim() })}
			/></label
		>
	{/if}
	<p class="wrong empty:hidden" role="alert">{say}</p>
</fieldset>
