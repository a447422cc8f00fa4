<script lang="ts">
	import type { Answer } from '../../core/field';
	import type { Field } from '../../core/packet';
	import { ANSWERS } from './answers';
	import type { Keeper } from './keeper';

	/** Asks for the answer to one field, whatever its kind: on the signing page, in a rehearsal, on the Bench. */
	let {
		field,
		fields,
		answer,
		wrong,
		locale,
		name,
		others = 0,
		keeper,
		large = true,
		ongive,
		onenter
	}: {
		field: Field;
		/** all fields, for the buttons of its group */
		fields: Field[];
		answer: Answer | undefined;
		/** the sentence about what stands there */
		wrong: string;
		locale: string;
		/** of the person who answers */
		name: string;
		others?: number;
		keeper: Pick<Keeper, 'picture' | 'file'>;
		large?: boolean;
		ongive: (answer: Answer | null, everywhere?: boolean) => void;
		onenter?: () => void;
	} = $props();

	const Way = $derived(ANSWERS[field.kind]);
	let unread = $state('');
	const say = $derived(unread || wrong);
</script>

{#if field.help}<p class="pb-1 text-[14px] text-quiet" id="help-{field.id}">{field.help}</p>{/if}
{#if Way}<Way
		{field}
		{fields}
		{answer}
		invalid={say !== ''}
		{locale}
		{name}
		{others}
		{keeper}
		{large}
		{ongive}
		{onenter}
		onunread={(said) => (unread = said)}
	/>{/if}
<p class="wrong pt-1 empty:hidden" role="alert">{say}</p>
