<script lang="ts">
	import { goto } from '$app/navigation';

	/** Begins something: from nothing, or from one of the templates used last. */
	let open = $state(false);
	let recent = $state.raw<{ id: string; title: string; folder: string }[] | null>(null);
	let box = $state<HTMLDetailsElement>();

	async function look() {
		if (recent !== null) return;
		const response = await fetch('/templates/recent').catch(() => null);
		recent = response?.ok ? await response.json() : [];
	}
</script>

<svelte:window
	onkeydown={(event) => {
		if (event.key === 'Escape' && open) {
			open = false;
			box?.querySelector('summary')?.focus();
		}
	}}
	onclick={(event) => {
		if (open && !box?.contains(event.target as Node)) open = false;
	}}
/>

<div class="flex">
	<form method="POST" action="/bench/new"><button class="button primary rounded-r-none!">New packet</button></form>
	<details bind:this={box} bind:open class="relative" ontoggle={(event) => event.currentTarget.open && void look()}>
		<summary
			class="button primary cursor-pointer list-none rounded-l-none! border-l-sheet! px-2!"
			aria-label="Begin from a template">▾</summary
		>
		<div class="absolute right-0 z-30 mt-2 w-72 rounded-sm border border-hairline bg-sheet p-2 shadow-(--float)">
			<p class="px-2 pb-1 text-[14px] text-quiet">From a template, used last</p>
			<ul>
				{#each recent ?? [] as template (template.id)}
					<li>
						<a
							class="block rounded-sm px-2 py-1 no-underline hover:bg-wash"
							href="/templates/{template.id}/use"
							onclick={(event) => {
								event.preventDefault();
								open = false;
								void goto(`/templates/${template.id}/use`);
							}}
							>{template.title}{#if template.folder}<span class="text-[13px] text-quiet">{` · ${template.folder}`}</span
								>{/if}</a
						>
					</li>
				{:else}<li class="px-2 py-1 text-quiet">{recent === null ? 'Looking…' : 'None is in use yet.'}</li>{/each}
			</ul>
			<p class="border-t border-hairline px-2 pt-1">
				<a class="text-thread underline" href="/templates">To the templates</a>
			</p>
		</div>
	</details>
</div>
