<script lang="ts">
	import { kindOf } from '../../../core/field';
	import { isRefusal } from '../../../core/refusal';
	import { useWords } from '../words';
	import { helpOf, sizeOf, type Asked } from './asked';

	/** What is typed: a line, or several where its field takes several. */
	let { field, answer, invalid, locale, large, ongive, onunread, onenter }: Asked = $props();

	/** what a browser may know of a person (HTML, autofill) */
	const KNOWN_AS: Record<string, string> = {
		name: 'name',
		email: 'email',
		organisation: 'organization',
		'job-title': 'organization-title'
	};
	const words = useWords();
	const kind = $derived(kindOf(field.kind));
	const control = $derived(kind.control(field));
	/** what stands there as it was typed, until it has been read and left */
	let typed = $state<string | null>(null);
	let unread = $state(false);
	const shown = $derived(typed ?? (answer === undefined ? '' : kind.shown(field, answer, locale)));

	function type(text: string) {
		typed = text;
		unread = false;
		onunread('');
		if (text.trim() === '') return ongive(null);
		const read = kind.read(field, text, locale);
		if (isRefusal(read)) {
			unread = true;
			onunread(words().refusal(read));
			ongive(null);
		} else ongive(read);
	}
	/** once left, a number stands as this packet writes it */
	function settle() {
		if (!unread) typed = null;
	}
</script>

{#if control === 'lines'}
	<textarea
		class="input min-h-24"
		aria-label={field.label}
		aria-describedby={helpOf(field)}
		aria-invalid={invalid}
		value={shown}
		oninput={(e) => type(e.currentTarget.value)}></textarea>
{:else}
	<input
		class="input {sizeOf(large)}"
		aria-label={field.label}
		aria-describedby={helpOf(field)}
		aria-invalid={invalid}
		inputmode={control === 'number' ? 'decimal' : field.settings['pattern'] === 'digits' ? 'numeric' : undefined}
		autocomplete={(KNOWN_AS[field.kind] ?? 'off') as AutoFill}
		value={shown}
		oninput={(e) => type(e.currentTarget.value)}
		onblur={settle}
		onkeydown={(e) => e.key === 'Enter' && onenter?.()}
	/>
{/if}
