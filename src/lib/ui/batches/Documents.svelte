<script lang="ts">
	import { enhance } from '$app/forms';
	import { invalidateAll } from '$app/navigation';
	import Files from '../parts/Files.svelte';

	/** Documents that rows have instead of the template's first one: given, laid under its fields, looked at where in doubt. */
	let {
		id,
		documents
	}: {
		/** the batch */
		id: string;
		documents: {
			counts: Record<'waits' | 'ready' | 'doubt' | 'refused', number>;
			look: { key: string; name: string; state: string; say: string }[];
		};
	} = $props();
	let busy = $state('');
	let wrong = $state('');
	const SAYS = { ready: 'laid', waits: 'being read', doubt: 'in doubt', refused: 'not taken' } as const;
	const states = Object.keys(SAYS) as (keyof typeof SAYS)[];
	const some = $derived(states.filter((state) => documents.counts[state] > 0));

	async function give(files: File[]) {
		busy = files.length === 1 ? `Sending “${files[0]!.name}” …` : `Sending ${files.length} files …`;
		wrong = '';
		const form = new FormData();
		for (const file of files) form.append('document', file);
		try {
			const response = await fetch(`/batches/${id}/documents`, { method: 'POST', body: form });
			if (!response.ok) wrong = ((await response.json()) as { say?: string }).say ?? 'They could not be taken.';
		} catch {
			wrong = 'No connection; nothing was added.';
		}
		busy = '';
		await invalidateAll();
	}
</script>

<p class="pb-2 text-[14px] text-quiet">
	A row may have another document than the template’s first. Give them here; a column that names them is then one of the
	columns above.
</p>
<Files
	label="Documents of the rows"
	takes="a ZIP, PDF, Word"
	accept=".zip,.pdf,.docx,application/zip,application/pdf"
	multiple
	{busy}
	onfiles={(files) => void give(files)}
/>
<p class="wrong pt-1 empty:hidden" role="alert">{wrong}</p>
{#if some.length > 0}
	<p class="pt-2" role="status">{some.map((state) => `${documents.counts[state]} ${SAYS[state]}`).join(', ')}</p>
	<ul>
		{#each documents.look as one (one.key)}
			<li class="border-b border-hairline py-2 text-[14px]">
				<p class="wrap-anywhere {one.state === 'refused' ? 'text-brick' : ''}">{one.say}</p>
				{#if one.state === 'doubt'}<form method="POST" action="?/accept" use:enhance>
						<input type="hidden" name="key" value={one.key} />
						<button class="plain" aria-label="Take {one.name} as it lies">Take it as it lies</button>
					</form>{/if}
			</li>
		{/each}
	</ul>
	<form method="POST" action="?/lay" use:enhance class="pt-2">
		<button class="plain">Lay them anew</button>
	</form>
{/if}
