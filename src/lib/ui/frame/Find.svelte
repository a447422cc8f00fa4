<script lang="ts">
	import { goto } from '$app/navigation';
	import { Dialog } from 'bits-ui';

	/** Finds packets, templates, people and commands: one field for going anywhere and doing anything. Ctrl K opens it. */
	let { areas, mayPrepare }: { areas: { to: string; name: string }[]; mayPrepare: boolean } = $props();

	interface Found {
		id: string;
		title: string;
		reference: string;
		status: string;
		people: string[];
	}

	let open = $state(false);
	let words = $state('');
	let packets = $state<Found[]>([]);
	let templates = $state<{ id: string; title: string }[]>([]);
	let people = $state<{ name: string; email: string }[]>([]);
	let chosen = $state(0);
	let timer: ReturnType<typeof setTimeout> | undefined;

	const commands = $derived(
		[
			...areas.map((area) => ({ name: `Go to ${area.name}`, run: () => goto(area.to) })),
			...(mayPrepare ? [{ name: 'New packet', run: newPacket }] : [])
		].filter((command) => command.name.toLowerCase().includes(words.trim().toLowerCase()))
	);
	const rows = $derived([
		...packets.map((p) => ({
			key: p.id,
			name: p.title,
			note: `${p.reference} · ${p.status} · ${p.people.join(', ')}`,
			run: () => goto(`/packets/${p.id}`)
		})),
		...templates.map((t) => ({
			key: t.id,
			name: `Use ${t.title}`,
			note: 'template',
			run: () => goto(`/templates/${t.id}/use`)
		})),
		...people.map((p) => ({
			key: p.email,
			name: p.name,
			note: p.email,
			run: () => goto(`/people?address=${encodeURIComponent(p.email)}`)
		})),
		...commands.map((c) => ({ key: c.name, name: c.name, note: '', run: c.run }))
	]);

	function newPacket() {
		document.querySelector<HTMLFormElement>('form[action="/bench/new"]')?.requestSubmit();
	}

	function ask() {
		clearTimeout(timer);
		chosen = 0;
		timer = setTimeout(async () => {
			const asked = words;
			const response = asked.trim() === '' ? null : await fetch(`/find?q=${encodeURIComponent(asked)}`);
			const found = response?.ok ? await response.json() : { packets: [], templates: [], people: [] };
			if (asked === words) ({ packets, templates, people } = found);
		}, 120);
	}

	function take(row: { run: () => unknown } | undefined) {
		if (!row) return;
		open = false;
		row.run();
	}

	function key(event: KeyboardEvent) {
		const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
		if (step !== 0) {
			event.preventDefault();
			chosen = Math.min(Math.max(chosen + step, 0), rows.length - 1);
		} else if (event.key === 'Enter') {
			event.preventDefault();
			take(rows[chosen]);
		}
	}
</script>

<svelte:window
	onkeydown={(event) => {
		if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
			event.preventDefault();
			open = true;
		}
	}}
/>

<button
	class="flex h-[30px] w-72 items-center rounded-sm border border-hairline bg-linen px-2.5 text-left text-[14px] text-quiet"
	onclick={() => (open = true)}
>
	Find or do…<kbd class="ml-auto font-mono text-[12px]">Ctrl K</kbd>
</button>

<Dialog.Root
	bind:open
	onOpenChange={() => {
		words = '';
		packets = [];
		templates = [];
		people = [];
	}}
>
	<Dialog.Portal>
		<Dialog.Overlay class="fixed inset-0 z-40 bg-ink/30" />
		<Dialog.Content
			class="fixed top-24 left-1/2 z-50 w-[560px] max-w-[94vw] -translate-x-1/2 rounded-sm border border-hairline bg-sheet shadow-(--float)"
		>
			<Dialog.Title class="unseen">Find or do</Dialog.Title>
			<input
				class="h-12 w-full border-b border-hairline bg-transparent px-4 text-[17px]"
				placeholder="A packet, a template, a person, a reference, or what you want to do"
				aria-label="Find or do"
				role="combobox"
				aria-expanded="true"
				aria-controls="found"
				aria-activedescendant={rows.length > 0 ? `found-${chosen}` : undefined}
				bind:value={words}
				oninput={ask}
				onkeydown={key}
			/>
			<ul id="found" role="listbox" aria-label="Found" class="max-h-80 overflow-y-auto py-1">
				{#each rows as row, i (row.key)}
					<!-- svelte-ignore a11y_click_events_have_key_events (the field above has the keys) -->
					<li
						id="found-{i}"
						role="option"
						aria-selected={i === chosen}
						class="cursor-pointer px-4 py-1.5 {i === chosen ? 'bg-wash' : ''}"
						onclick={() => take(row)}
					>
						<span class="font-semibold">{row.name}</span>
						{#if row.note}<span class="block text-[13px] text-quiet">{row.note}</span>{/if}
					</li>
				{:else}
					<li role="option" aria-selected="false" aria-disabled="true" class="px-4 py-2 text-quiet">
						Nothing of that name. Finished packets are under Records.
					</li>
				{/each}
			</ul>
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>
