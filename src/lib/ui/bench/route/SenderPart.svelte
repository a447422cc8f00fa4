<script lang="ts">
	import type { Answer, FileAnswer } from '../../../core/field';
	import { localeOf, type Field } from '../../../core/packet';
	import AnswerInput from '../../signing/AnswerInput.svelte';
	import { upload } from '../../signing/keeper';
	import type { Bench } from '../bench.svelte';
	import { answerField } from '../../../core/plan';

	/** A field that the sender fills in before sending. */
	let { bench, field }: { bench: Bench; field: Field } = $props();

	const answer = $derived(bench.asSender.answer(field));
	const files = $derived(`/bench/${bench.id}/files`);
	const keeper = {
		picture: async (file: File) => await upload<{ digest: string }>(files, file),
		file: async (id: string, file: File): Promise<FileAnswer | string> => {
			// the server looks at the field in the draft, so that must be there
			if (!(await bench.flush())) return 'The field is not saved yet. Try again in a moment.';
			return upload<FileAnswer>(`${files}?field=${encodeURIComponent(id)}&name=${encodeURIComponent(file.name)}`, file);
		}
	};
	function give(given: Answer | null) {
		bench.change('answer', answerField(bench.plan, field.id, given), true);
	}
</script>

<div class="rounded-sm border border-thread bg-wash p-2">
	<p class="pb-1 font-semibold">Yours to fill in</p>
	<AnswerInput
		{field}
		fields={bench.plan.fields}
		{answer}
		wrong={answer ? (bench.asSender.check(field, answer)?.say ?? '') : ''}
		locale={localeOf(bench.plan)}
		name={bench.office.sender.name}
		{keeper}
		large={false}
		ongive={give}
	/>
</div>
