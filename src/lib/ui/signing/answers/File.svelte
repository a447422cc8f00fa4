<script lang="ts">
	import { limitsOfFile, typeNames } from '../../../core/field';
	import Files from '../../parts/Files.svelte';
	import { useWords } from '../words';
	import type { Asked } from './asked';

	/** A file, chosen, dropped, or taken with the camera. */
	let { field, answer, keeper, large, ongive, onunread }: Asked = $props();
	const words = useWords();
	const limits = $derived(limitsOfFile(field));
	let busy = $state(false);

	async function hand([file]: File[]) {
		if (!file) return;
		busy = true;
		onunread('');
		if (file.size > limits.megabytes * 1024 * 1024)
			onunread(words()('error.file-too-large', { megabytes: limits.megabytes }));
		else {
			const got = await keeper.file(field.id, file);
			if (typeof got === 'string') onunread(got);
			else ongive(got);
		}
		busy = false;
	}
</script>

{#if answer && 'file' in answer}
	<p class="flex items-center gap-2 py-1">
		<b class="min-w-0 flex-1 truncate">{answer.name}</b>
		<button type="button" class="button" onclick={() => ongive(null)}>{words()('answer.take out')}</button>
	</p>
{/if}
<Files
	label={field.label}
	takes={words()('answer.file', { types: typeNames(field), megabytes: limits.megabytes })}
	accept={limits.media.join(',')}
	busy={busy ? words()('answer.handing') : ''}
	say={{ choose: words()('answer.choose file'), drop: words()('answer.drop') }}
	onfiles={hand}
/>
{#if limits.media.includes('image/jpeg') && large}
	<p class="pt-2">
		<Files
			label={words()('answer.photo')}
			compact
			large
			accept="image/*"
			capture="environment"
			busy={busy ? words()('answer.handing') : ''}
			onfiles={hand}
		/>
	</p>
{/if}
