<script lang="ts">
	import { goto } from '$app/navigation';
	import X from '@lucide/svelte/icons/x';
	import Over from '../parts/Over.svelte';

	/** Named views: a list's filters and order, kept under a name and called again. */
	let {
		views,
		query,
		onkeep
	}: {
		views: { name: string; query: string }[];
		/** of the view that is open now */
		query: string;
		onkeep: (views: { name: string; query: string }[]) => void;
	} = $props();

	let name = $state('');
	let open = $state(false);

	function keep(event: SubmitEvent) {
		event.preventDefault();
		const called = name.trim();
		if (!called) return;
		onkeep([...views.filter((one) => one.name !== called), { name: called, query }]);
		name = '';
		open = false;
	}
</script>

<Over label="Views" look="chip cursor-pointer" bind:open>
	<ul class="grid gap-1 pb-2">
		{#each views as view (view.name)}
			<li class="flex items-center gap-2">
				<button
					type="button"
					class="flex-1 cursor-pointer rounded-sm px-2 py-1 text-left hover:bg-wash {view.query === query
						? 'font-semibold text-thread'
						: ''}"
					onclick={() => {
						open = false;
						void goto(`?${view.query}`, { noScroll: true });
					}}>{view.name}</button
				>
				<button
					type="button"
					class="plain"
					aria-label="Forget the view {view.name}"
					onclick={() => onkeep(views.filter((one) => one !== view))}><X size={14} aria-hidden="true" /></button
				>
			</li>
		{:else}<li class="px-2 text-[14px] text-quiet">No view has been kept yet.</li>{/each}
	</ul>
	<form class="flex gap-2 border-t border-hairline pt-3" onsubmit={keep}>
		<label class="min-w-0 flex-1"
			><span class="unseen">Name of this view</span><input
				class="input"
				maxlength="60"
				placeholder="Keep this view as…"
				bind:value={name}
			/></label
		>
		<button class="button" disabled={!name.trim()}>Keep</button>
	</form>
</Over>
