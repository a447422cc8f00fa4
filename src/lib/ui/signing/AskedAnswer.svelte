<script lang="ts">
	import type { Field } from '../../core/packet';
	import AnswerInput from './AnswerInput.svelte';
	import type { Signing } from './signing.svelte';

	/** The input for one of this person's questions, with what stands there and what is wrong with it. */
	let { signing, field, name, onenter }: { signing: Signing; field: Field; name: string; onenter?: () => void } =
		$props();
</script>

<AnswerInput
	{field}
	fields={signing.fields}
	answer={signing.now.answer(field)}
	wrong={signing.wrong(field)}
	locale={signing.locale}
	{name}
	others={signing.alike(field).length - 1}
	keeper={signing.keeper}
	ongive={(answer, everywhere) => signing.give(everywhere ? signing.alike(field) : [field.id], answer)}
	{onenter}
/>
