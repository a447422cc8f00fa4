<script lang="ts">
	import { kindOf } from '../../core/field';
	import type { Field } from '../../core/packet';
	import AskedAnswer from './AskedAnswer.svelte';
	import type { Signing } from './signing.svelte';
	import { useWords } from './words';

	/** What this person has to do, as a list; the entry in hand is open. */
	let { signing, name, ongo }: { signing: Signing; name: string; ongo: (id: string) => void } = $props();

	const words = useWords();
	const note = (field: Field) => {
		if (kindOf(field.kind).filledBy === 'finishing') return words()('todo.at the end');
		return signing.said(field) || (signing.now.required(field) ? '' : words()('todo.may stay empty'));
	};
</script>

<ol>
	{#each signing.todo as field (field.id)}
		{@const kind = kindOf(field.kind)}
		{@const done = kind.filledBy === 'finishing' || signing.isDone(field)}
		{@const here = signing.current === field.id}
		<li
			class="border-b border-hairline {here ? '-mx-5 border-s-[3px] border-s-thread bg-wash px-5 ps-[17px]' : ''}"
			data-todo={field.id}
		>
			<button
				type="button"
				class="flex min-h-[44px] w-full cursor-pointer items-center gap-3 py-1.5 text-start"
				aria-expanded={here}
				onclick={() => {
					signing.current = field.id;
					ongo(field.id);
				}}
			>
				<svg width="14" height="14" role="img" aria-label={words()(done ? 'todo.done' : 'todo.open')} class="shrink-0">
					{#if done}<path d="M2 7.5 5.5 11 12 3" fill="none" stroke="var(--moss)" stroke-width="2" />{:else}<circle
							cx="7"
							cy="7"
							r="5"
							fill="none"
							stroke="var(--thread)"
							stroke-width={here ? 2.5 : 1.5}
						/>{/if}
				</svg>
				<span class="min-w-0 flex-1"
					><span class="block {here ? 'font-semibold' : ''}">{field.label}</span><span
						class="block truncate text-[14px] text-quiet">{note(field)}</span
					></span
				>
			</button>
			{#if here && kind.filledBy === 'person'}
				<div class="pb-3">
					<AskedAnswer {signing} {field} {name} onenter={() => signing.next()} />
				</div>
			{/if}
		</li>
	{/each}
</ol>
