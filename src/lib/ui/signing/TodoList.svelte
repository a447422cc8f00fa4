<script lang="ts">
	import { kindOf, type MarkAnswer } from '../../core/field';
	import type { Field } from '../../core/packet';
	import MarkMaker from './MarkMaker.svelte';
	import type { Signing } from './signing.svelte';

	/** What this person has to do, as a list; the entry in hand is open. */
	let { signing, name, base, ongo }: { signing: Signing; name: string; base: string; ongo: (id: string) => void } =
		$props();

	const initials = $derived(
		name
			.trim()
			.split(/\s+/)
			.map((w) => [...w][0] ?? '')
			.join('')
	);
	const sameKind = (field: Field) => signing.fields.filter((f) => f.kind === field.kind).map((f) => f.id);

	function text(field: Field, value: string) {
		signing.give([field.id], value === '' ? null : { text: value });
	}
	const textOf = (field: Field) => {
		const answer = signing.answers[field.id];
		return answer && 'text' in answer ? answer.text : '';
	};
	const note = (field: Field) => {
		const kind = kindOf(field.kind);
		if (kind.filledBy === 'finishing') return 'filled when you finish';
		const answer = signing.answers[field.id];
		if (answer) return kind.shown(field, answer);
		return field.required ? '' : 'may stay empty';
	};
</script>

<ol>
	{#each signing.fields as field (field.id)}
		{@const kind = kindOf(field.kind)}
		{@const done = kind.filledBy === 'finishing' || signing.isDone(field)}
		{@const here = signing.current === field.id}
		<li
			class="border-b border-hairline {here ? '-mx-5 border-l-[3px] border-l-thread bg-wash px-5 pl-[17px]' : ''}"
			data-todo={field.id}
		>
			<button
				type="button"
				class="flex min-h-[44px] w-full cursor-pointer items-center gap-3 py-1.5 text-left"
				aria-expanded={here}
				onclick={() => {
					signing.current = field.id;
					ongo(field.id);
				}}
			>
				<svg width="14" height="14" role="img" aria-label={done ? 'done' : 'to do'} class="shrink-0">
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
					{#if kind.signs}
						<MarkMaker
							kind={kind.name}
							suggestion={field.kind === 'initials' ? initials : name}
							answer={signing.answers[field.id] as MarkAnswer | undefined}
							picture="{base}/picture"
							others={sameKind(field).length - 1}
							ongive={(answer, everywhere) => signing.give(everywhere ? sameKind(field) : [field.id], answer)}
						/>
					{:else if field.settings['several'] === true}
						<textarea
							class="input min-h-24"
							aria-label={field.label}
							aria-invalid={signing.wrong(field) !== ''}
							value={textOf(field)}
							oninput={(e) => text(field, e.currentTarget.value)}></textarea>
					{:else}
						<input
							class="input min-h-[44px]! text-[16px]"
							aria-label={field.label}
							aria-invalid={signing.wrong(field) !== ''}
							autocomplete={field.kind === 'name' ? 'name' : 'off'}
							value={textOf(field)}
							oninput={(e) => text(field, e.currentTarget.value)}
							onkeydown={(e) => e.key === 'Enter' && signing.next()}
						/>
					{/if}
					<p class="wrong pt-1 empty:hidden" role="alert">{signing.wrong(field)}</p>
				</div>
			{/if}
		</li>
	{/each}
</ol>
