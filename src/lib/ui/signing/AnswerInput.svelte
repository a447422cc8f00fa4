<script lang="ts">
	import {
		groupOptions,
		initialsOf,
		kindOf,
		limitsOfFile,
		optionsOf,
		questionOf,
		typeNames,
		type Answer,
		type MarkAnswer
	} from '../../core/field';
	import type { Field } from '../../core/packet';
	import { isRefusal } from '../../core/refusal';
	import type { Keeper } from './keeper';
	import { useWords } from './words';
	import MarkMaker from './MarkMaker.svelte';

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

	const words = useWords();
	const kind = $derived(kindOf(field.kind));
	const control = $derived(kind.control(field));
	const options = $derived(
		control === 'list' ? optionsOf(field) : control === 'none' ? [] : groupOptions(questionOf(fields, field))
	);
	const size = $derived(large ? 'min-h-[44px]! text-[16px]' : '');
	const ticked = $derived(answer && 'ticks' in answer ? answer.ticks : []);
	/** what stands in a typed control; what can't be read is kept as it was typed */
	let typed = $state<string | null>(null);
	let unread = $state('');
	let busy = $state(false);
	const shown = $derived(
		answer === undefined ? '' : 'day' in answer && !('at' in answer) ? answer.day : kind.shown(field, answer, locale)
	);
	const say = $derived(unread || wrong);
	const takesPictures = $derived(control === 'file' && limitsOfFile(field).media.includes('image/jpeg'));

	function type(text: string) {
		typed = text;
		unread = '';
		if (text.trim() === '') return ongive(null);
		const read = kind.read(field, text, locale);
		if (isRefusal(read)) {
			unread = words().refusal(read);
			ongive(null);
		} else ongive(read);
	}
	/** once left, a number stands as this packet writes it */
	function settle() {
		if (unread === '') typed = null;
	}
	function tick(value: string, on: boolean) {
		const ticks = options.map((o) => o.value).filter((v) => (v === value ? on : ticked.includes(v)));
		ongive(ticks.length === 0 ? null : { ticks });
	}
	async function hand(input: HTMLInputElement) {
		const file = input.files?.[0];
		if (!file) return;
		busy = true;
		unread = '';
		const { megabytes } = limitsOfFile(field);
		if (file.size > megabytes * 1024 * 1024) unread = words()('error.file-too-large', { megabytes });
		else {
			const got = await keeper.file(field.id, file);
			if (typeof got === 'string') unread = got;
			else ongive(got);
		}
		busy = false;
		input.value = '';
	}
</script>

{#if field.help}<p class="pb-1 text-[14px] text-quiet" id="help-{field.id}">{field.help}</p>{/if}
{#if control === 'mark'}
	<MarkMaker
		initials={field.kind === 'initials'}
		suggestion={field.kind === 'initials' ? initialsOf(name) : name}
		answer={answer as MarkAnswer | undefined}
		picture={keeper.picture}
		{others}
		{ongive}
	/>
{:else if control === 'lines'}
	<textarea
		class="input min-h-24"
		aria-label={field.label}
		aria-describedby={field.help ? `help-${field.id}` : undefined}
		aria-invalid={say !== ''}
		value={shown}
		oninput={(e) => type(e.currentTarget.value)}></textarea>
{:else if control === 'list'}
	<select
		class="input {size}"
		aria-label={field.label}
		aria-invalid={say !== ''}
		value={answer && 'choice' in answer ? answer.choice : ''}
		onchange={(e) => ongive(e.currentTarget.value === '' ? null : { choice: e.currentTarget.value })}
	>
		<option value="">{words()('answer.choose')}</option>
		{#each options as option (option.value)}<option value={option.value}>{option.text || option.value}</option>{/each}
	</select>
{:else if control === 'pick'}
	<div role="radiogroup" aria-label={field.label} class="grid">
		{#each options as option (option.value)}
			<label class="flex items-center gap-2 {large ? 'min-h-[44px]' : ''}"
				><input
					class="size-5"
					type="radio"
					name="pick-{field.id}"
					checked={answer !== undefined && 'choice' in answer && answer.choice === option.value}
					onchange={() => ongive({ choice: option.value })}
				/>
				{option.text}</label
			>
		{/each}
	</div>
{:else if control === 'ticks'}
	<div role="group" aria-label={field.label} class="grid">
		{#each options as option (option.value)}
			<label class="flex items-center gap-2 {large ? 'min-h-[44px]' : ''}"
				><input
					class="size-5"
					type="checkbox"
					checked={ticked.includes(option.value)}
					onchange={(e) => tick(option.value, e.currentTarget.checked)}
				/>
				{options.length === 1 && !field.settings['text'] ? field.label : option.text}</label
			>
		{/each}
	</div>
{:else if control === 'file'}
	{#if answer && 'file' in answer}
		<p class="flex items-center gap-2 py-1">
			<b class="min-w-0 flex-1 truncate">{answer.name}</b>
			<button type="button" class="button" onclick={() => ongive(null)}>{words()('answer.take out')}</button>
		</p>
	{/if}
	<label class="text-[14px]"
		>{words()('answer.file', { types: typeNames(field), megabytes: limitsOfFile(field).megabytes })}<input
			class="mt-1 block w-full {size}"
			type="file"
			accept={limitsOfFile(field).media.join(',')}
			disabled={busy}
			aria-label={field.label}
			onchange={(e) => hand(e.currentTarget)}
		/></label
	>
	{#if takesPictures && large}
		<label class="button large mt-1 cursor-pointer"
			>{words()('answer.photo')}<input
				class="unseen"
				type="file"
				accept="image/*"
				capture="environment"
				disabled={busy}
				onchange={(e) => hand(e.currentTarget)}
			/></label
		>
	{/if}
	<p role="status" class="text-[14px] text-quiet">{busy ? words()('answer.handing') : ''}</p>
{:else if control === 'date'}
	<input
		class="input {size}"
		type="date"
		aria-label={field.label}
		aria-describedby={field.help ? `help-${field.id}` : undefined}
		aria-invalid={say !== ''}
		value={shown}
		oninput={(e) => ongive(e.currentTarget.value === '' ? null : { day: e.currentTarget.value })}
		onkeydown={(e) => e.key === 'Enter' && onenter?.()}
	/>
{:else if control !== 'none'}
	<input
		class="input {size}"
		aria-label={field.label}
		aria-describedby={field.help ? `help-${field.id}` : undefined}
		aria-invalid={say !== ''}
		inputmode={control === 'number' ? 'decimal' : field.settings['pattern'] === 'digits' ? 'numeric' : undefined}
		autocomplete={field.kind === 'name'
			? 'name'
			: field.kind === 'email'
				? 'email'
				: field.kind === 'organisation'
					? 'organization'
					: field.kind === 'job-title'
						? 'organization-title'
						: 'off'}
		value={typed ?? shown}
		oninput={(e) => type(e.currentTarget.value)}
		onblur={settle}
		onkeydown={(e) => e.key === 'Enter' && onenter?.()}
	/>
{/if}
<p class="wrong pt-1 empty:hidden" role="alert">{say}</p>
