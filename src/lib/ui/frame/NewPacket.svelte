<script lang="ts">
	import { goto } from '$app/navigation';
	import Menu from '../parts/Menu.svelte';

	/** Begins something: from nothing, or from one of the templates used last. */
	let recent = $state.raw<{ id: string; title: string; folder: string }[] | null>(null);

	async function look() {
		if (recent !== null) return;
		const response = await fetch('/templates/recent').catch(() => null);
		recent = response?.ok ? await response.json() : [];
	}
</script>

<div class="flex">
	<form method="POST" action="/bench/new">
		<button class="button primary whitespace-nowrap rounded-r-none!">New packet</button>
	</form>
	<Menu
		label="▾"
		hint="Begin from a template"
		look="button primary rounded-l-none! border-l-sheet! px-2!"
		heading={recent === null
			? 'Looking…'
			: recent.length > 0
				? 'From a template, used last'
				: 'No template is in use yet'}
		entries={[
			...(recent ?? []).map(({ id, title, folder }) => ({
				name: title,
				...(folder && { note: folder }),
				run: () => goto(`/templates/${id}/use`)
			})),
			{ name: 'To the templates', run: () => goto('/templates') }
		]}
		onopen={look}
	/>
</div>
