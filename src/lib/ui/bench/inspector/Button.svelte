<script lang="ts">
	import type { Snippet } from 'svelte';
	import { questionOf, textOfButton, valueOf } from '../../../core/field';
	import type { Settings } from './settings.svelte';
	import Tick from './Tick.svelte';

	/** One button of a group: its value, its words, whether it is set beforehand. */
	let { settings, children }: { settings: Settings; children?: Snippet } = $props();

	const field = $derived(settings.field);
	const question = $derived(questionOf(settings.bench.plan.fields, field));
</script>

<div class="grid grid-cols-2 gap-2">
	<label
		>Value<input
			class="input mt-1 font-mono"
			maxlength="200"
			value={valueOf(field)}
			onchange={(e) => settings.set('value', e.currentTarget.value.trim() || field.id, true)}
		/></label
	>
	<label
		>Its text<input
			class="input mt-1"
			maxlength="200"
			value={textOfButton(field)}
			onchange={(e) => settings.set('text', e.currentTarget.value.trim(), true)}
		/></label
	>
</div>
<Tick {settings} name="ticked" label="set beforehand" own />
<Tick {settings} name="outline" label="draw its edge, where the page has none" own />
{@render children?.()}
<p class="text-quiet">
	{question.length === 1 ? 'The only one of its group.' : `One of ${question.length} in its group.`} With it chosen, place
	another to let the group grow.
</p>
