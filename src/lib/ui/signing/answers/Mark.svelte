<script lang="ts">
	import { initialsOf, type MarkAnswer } from '../../../core/field';
	import MarkMaker from '../MarkMaker.svelte';
	import type { Asked } from './asked';

	/** A signature, or initials: typed, drawn, or a picture. */
	let { field, answer, name, others, keeper, ongive }: Asked = $props();
	const initials = $derived(field.kind === 'initials');
</script>

<MarkMaker
	{initials}
	suggestion={initials ? initialsOf(name) : name}
	answer={answer as MarkAnswer | undefined}
	picture={keeper.picture}
	{others}
	{ongive}
/>
