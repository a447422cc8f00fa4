<script lang="ts">
	import Plus from '@lucide/svelte/icons/plus';
	import Ordered from '../parts/Ordered.svelte';
	import type { Making } from './making.svelte';

	/** The pages of questions, dragged into order; beneath them the rules that speak. */
	let { making }: { making: Making } = $props();

	const count = (n: number) => (n === 1 ? '1 thing' : `${n} things`);
	function addSay() {
		const id = making.freshId('rule');
		making.set({ says: [...making.setting.says, { id, when: '', say: 'What the rule says' }] });
		making.page = null;
		making.open = id;
	}
</script>

<h2 class="pb-2 text-[16px]">Pages</h2>
<Ordered
	label="Pages of questions"
	items={making.setting.pages}
	name={(page) => page.title || 'A page'}
	onorder={(ids) =>
		making.set({ pages: ids.flatMap((id) => making.setting.pages.find((page) => page.id === id) ?? []) })}
>
	{#snippet row(page)}
		{@const here = making.page === page.id}
		<button
			type="button"
			class="flex min-h-9 w-full cursor-pointer items-center gap-2 border-l-[3px] px-2 py-1 text-left hover:bg-wash {here
				? 'border-thread bg-wash font-semibold'
				: 'border-transparent'}"
			aria-current={here ? 'true' : undefined}
			onclick={() => ((making.page = page.id), (making.open = null))}
		>
			<span class="min-w-0 flex-1 truncate">{page.title || 'A page'}</span>
			<span class="text-[13px] font-normal text-quiet">{page.when ? 'by rule · ' : ''}{count(page.items.length)}</span>
		</button>
	{/snippet}
</Ordered>
<p class="pt-2">
	<button type="button" class="button" onclick={() => making.addPage()}
		><Plus size={14} aria-hidden="true" /> A page</button
	>
</p>
<h2 class="pt-6 pb-2 text-[16px]">Rules that speak</h2>
<ul>
	{#each making.setting.says as say (say.id)}
		{@const here = making.page === null && making.open === say.id}
		<li>
			<button
				type="button"
				class="flex min-h-9 w-full cursor-pointer items-center gap-2 border-l-[3px] px-2 py-1 text-left hover:bg-wash {here
					? 'border-thread bg-wash'
					: 'border-transparent'}"
				aria-current={here ? 'true' : undefined}
				onclick={() => ((making.page = null), (making.open = say.id))}
			>
				<span class="min-w-0 flex-1 truncate">{say.say}</span>
				<span class="text-[13px] text-quiet">{say.closes ? 'closes' : say.forces ? 'forces' : ''}</span>
			</button>
		</li>
	{/each}
</ul>
<p class="pt-2">
	<button type="button" class="button" onclick={addSay}><Plus size={14} aria-hidden="true" /> A rule</button>
</p>
