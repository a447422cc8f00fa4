<script lang="ts">
	import Search from '@lucide/svelte/icons/search';
	import { goto } from '$app/navigation';
	import Finder from '../parts/Finder.svelte';

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

	// what was found belongs to the words that stood there
	$effect(() => {
		if (!open) [packets, templates, people] = [[], [], []];
	});

	function newPacket() {
		document.querySelector<HTMLFormElement>('form[action="/bench/new"]')?.requestSubmit();
	}

	function ask() {
		clearTimeout(timer);
		timer = setTimeout(async () => {
			const asked = words;
			const response = asked.trim() === '' ? null : await fetch(`/find?q=${encodeURIComponent(asked)}`);
			const found = response?.ok ? await response.json() : { packets: [], templates: [], people: [] };
			if (asked === words) ({ packets, templates, people } = found);
		}, 120);
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
	class="flex h-[30px] items-center whitespace-nowrap min-[600px]:w-40 min-[1200px]:w-72 rounded-sm border border-hairline bg-linen px-2.5 text-left text-[14px] text-quiet"
	onclick={() => (open = true)}
>
	<Search size={16} class="min-[600px]:hidden" aria-hidden="true" />
	<span class="unseen min-[600px]:not-sr-only">Find or do…</span>
	<kbd class="ml-auto hidden font-mono text-[12px] min-[600px]:inline">Ctrl K</kbd>
</button>

<Finder
	bind:open
	bind:words
	label="Find or do"
	placeholder="A packet, a template, a person, a reference, or what you want to do"
	{rows}
	none="Nothing of that name. Finished packets are under Records."
	onask={ask}
/>
