<script lang="ts" module>
	import { FUNCTIONS } from '../../core/rule';

	/** What can be completed: every function, with what it does. */
	const CALLS = Object.entries(FUNCTIONS).map(([name, { takes, does }]) => ({
		word: takes.length === 0 ? name : `${name}(`,
		name,
		does
	}));
</script>

<script lang="ts">
	import { computedAnswer, keyTypes, kindOf, parsedRule, usesOf } from '../../core/field';
	import { localeOf, type Field } from '../../core/packet';
	import { asText, evaluate, isFault, LENGTH, typeName, type RuleFault } from '../../core/rule';
	import What from '../help/What.svelte';
	import type { Ground } from './ground';

	/** A rule being written: completion of keys and functions, the place of what is wrong, and what it gives now. */
	let {
		bench,
		label,
		source,
		check,
		offered = () => true,
		computes,
		onchange
	}: {
		bench: Ground;
		label: string;
		source: string;
		/** what is wrong with a rule, and where */
		check: (source: string) => RuleFault | null;
		/** which keys are offered to complete */
		offered?: (key: string) => boolean;
		/** the field whose answer it computes, where it does */
		computes?: Field;
		onchange: (source: string) => void;
	} = $props();

	const plan = $derived(bench.plan);
	const uid = $props.id();
	let box = $state<HTMLInputElement>();
	let caret = $state(0);
	let open = $state(false);
	let picked = $state(0);
	let tooLong = $state('');

	const fault = $derived(source.trim() === '' ? null : check(source));
	const types = $derived(keyTypes(plan));
	/** the word before the caret */
	const begun = $derived(/[A-Za-z_]\w*$/.exec(source.slice(0, caret))?.[0] ?? '');
	const offers = $derived.by(() => {
		if (!open || begun === '') return [];
		const wanted = begun.toLowerCase();
		const keys = Object.entries(types)
			.filter(([key]) => offered(key))
			.map(([key, type]) => ({ word: key, name: key, does: `${labelOf(key)} · ${typeName(type)}` }));
		return [...keys, ...CALLS]
			.filter((one) => one.name.toLowerCase().startsWith(wanted) && one.name !== begun)
			.slice(0, 7);
	});
	/** what the rule gives with the sender's answers and a sample for everybody else, and what those are */
	const now = $derived.by(() => {
		const node = source.trim() === '' || fault ? null : parsedRule(source);
		if (!node || isFault(node)) return null;
		const look = bench.withSamples();
		const value = evaluate(node, { today: bench.today, value: (key) => look.value(key) });
		const answer = computes ? computedAnswer(computes, value) : null;
		return {
			gives: (answer ? kindOf('computed').shown(computes!, answer, localeOf(plan)) : asText(value)) || 'no value',
			from: usesOf(source)
				.map((key) => `${key} ${asText(look.value(key)) || 'empty'}`)
				.join(', ')
		};
	});

	function labelOf(key: string): string {
		return plan.fields.find((f) => f.key === key)?.label ?? '';
	}

	function input(target: HTMLInputElement) {
		caret = target.selectionStart ?? target.value.length;
		open = true;
		picked = 0;
		tooLong =
			target.value.length > LENGTH
				? `A rule may have ${LENGTH.toLocaleString('en-GB')} characters; this has ${target.value.length.toLocaleString('en-GB')}. What stood here before is kept.`
				: '';
		if (tooLong === '') onchange(target.value.replace(/\s*\n\s*/g, ' '));
		else target.value = source;
	}

	function take(word: string) {
		const from = caret - begun.length;
		const next = source.slice(0, from) + word + source.slice(caret);
		open = false;
		onchange(next);
		const place = from + word.length;
		setTimeout(() => {
			box?.focus();
			box?.setSelectionRange(place, place);
			caret = place;
		}, 0);
	}

	function key(event: KeyboardEvent) {
		if (offers.length === 0) return;
		if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
			picked = (picked + (event.key === 'ArrowDown' ? 1 : offers.length - 1)) % offers.length;
		} else if (event.key === 'Enter' || event.key === 'Tab') take(offers[picked]!.word);
		else if (event.key === 'Escape') {
			open = false;
			event.stopPropagation();
		} else return;
		event.preventDefault();
	}
</script>

<div class="relative">
	<span class="flex items-center gap-1"><label for="{uid}-box">{label}</label> <What topic="rules" of="rules" /></span>
	<input
		id="{uid}-box"
		bind:this={box}
		class="input mt-1 font-mono text-[13px]"
		autocomplete="off"
		spellcheck="false"
		role="combobox"
		aria-expanded={offers.length > 0}
		aria-controls="{uid}-offers"
		aria-autocomplete="list"
		aria-invalid={fault !== null}
		aria-describedby="{uid}-says"
		value={source}
		oninput={(e) => input(e.currentTarget)}
		onkeydown={key}
		onkeyup={(e) => (caret = e.currentTarget.selectionStart ?? 0)}
		onclick={(e) => (caret = e.currentTarget.selectionStart ?? 0)}
		onblur={() => setTimeout(() => (open = false), 150)}
	/>
	<ul
		id="{uid}-offers"
		role="listbox"
		aria-label="Keys and functions"
		class="absolute z-20 w-full rounded-sm border border-hairline bg-sheet shadow-(--float) {offers.length > 0
			? ''
			: 'hidden'}"
	>
		{#each offers as offer, i (offer.word)}
			<li
				role="option"
				aria-selected={i === picked}
				class="cursor-pointer px-2 py-1 text-[13px] {i === picked ? 'bg-wash' : ''}"
				onmousedown={(e) => {
					e.preventDefault();
					take(offer.word);
				}}
			>
				<span class="font-mono">{offer.word}</span> <span class="text-quiet">{offer.does}</span>
			</li>
		{/each}
	</ul>
	<div id="{uid}-says" aria-live="polite">
		{#if tooLong}<p class="wrong pt-1">{tooLong}</p>
		{:else if fault}
			<p class="pt-1 font-mono text-[12px] leading-4 break-words text-quiet" aria-hidden="true">
				{source.slice(0, fault.from)}<mark class="bg-transparent font-semibold text-brick underline decoration-wavy"
					>{source.slice(fault.from, fault.to) || '?'}</mark
				>{source.slice(fault.to)}
			</p>
			<p class="wrong">{fault.say}</p>
		{:else if now}<p class="pt-1 text-[13px] break-words text-quiet">
				gives <b class="text-ink">{now.gives}</b>{now.from ? ` with ${now.from}` : ''}
			</p>{/if}
	</div>
</div>
