<script lang="ts">
	import Choice from '../../parts/Choice.svelte';
	import type { Adding, LooksLike } from './adding.svelte';

	/** Says which template a document looks like, and how much; a person takes it, another, or none. */
	let { adding, like }: { adding: Adding; like: LooksLike } = $props();

	const first = $derived(like.templates[0]!);
	const others = $derived(like.templates.slice(1));
	const percent = (share: number) => `${Math.round(share * 100)} %`;
</script>

<div role="status" class="rounded-sm border border-thread bg-sheet p-3 shadow-(--float)">
	<p>
		{like.verdict === 'sure' ? 'This looks like' : 'This may be'} <b>{first.title}</b>: {percent(first.share)} of its wording
		is in “{like.paper.name}”. What differs is marked when it is fitted.
	</p>
	<p class="flex flex-wrap gap-2 pt-2">
		<button class="button primary" onclick={() => void adding.useTemplate(first.id, first.paper, like.paper)}
			>Fit {first.title}</button
		>
		{#if others.length > 0}
			<Choice
				label="Another template"
				unseen
				narrow
				empty="Another…"
				value=""
				options={others.map((one) => [`${one.id} ${one.paper}`, `${one.title}, ${percent(one.share)}`])}
				onchoose={(chosen) => {
					const other = others.find((one) => `${one.id} ${one.paper}` === chosen);
					if (other) void adding.useTemplate(other.id, other.paper, like.paper);
				}}
			/>
		{/if}
		<button class="button" onclick={() => (adding.looksLike = null)}>No, it is new</button>
	</p>
</div>
