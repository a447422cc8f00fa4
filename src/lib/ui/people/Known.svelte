<script lang="ts">
	import Suggested from '../parts/Suggested.svelte';

	/** The name of somebody who is to take part: whoever has taken part before is offered with their address, by either. */
	let {
		label,
		value,
		id,
		readonly = false,
		takes = true,
		placeholder,
		onname,
		onperson
	}: {
		label: string;
		value: string;
		id?: string;
		readonly?: boolean;
		/** their address may be put in as well; otherwise nobody is offered */
		takes?: boolean;
		placeholder?: string;
		onname: (name: string) => void;
		onperson: (person: { name: string; email: string }) => void;
	} = $props();

	interface Found {
		people: { name: string; email: string }[];
	}
	const FEWEST_LETTERS = 2;
	const PAUSE_MS = 120;
	let asked = '';

	async function offered(words: string) {
		asked = words;
		await new Promise((go) => setTimeout(go, PAUSE_MS));
		if (!takes || asked !== words || words.trim().length < FEWEST_LETTERS) return [];
		// whoever can't be looked up can still be written
		const response = await fetch(`/find?q=${encodeURIComponent(words)}`).catch(() => null);
		const { people }: Found = response?.ok ? ((await response.json()) as Found) : { people: [] };
		return people.map(({ name, email }) => ({ words: name, note: email }));
	}
</script>

<Suggested
	{label}
	{id}
	{value}
	{readonly}
	{placeholder}
	most={200}
	{offered}
	oninput={onname}
	ontake={({ words, note = '' }) => onperson({ name: words, email: note })}
/>
