<script lang="ts">
	import Choice from '../../parts/Choice.svelte';
	import { valuesOf } from '../../../core/template';
	import type { Bench } from '../bench.svelte';

	/** A letter: its subject and text, with values that are filled in when it goes, and the office's saved texts. */
	let {
		bench,
		of,
		subject,
		message,
		onchange
	}: {
		bench: Bench;
		/** whose letter, for labels: "everyone", "Maren" */
		of: string;
		subject: string;
		message: string;
		onchange: (change: { subject?: string; message?: string }) => void;
	} = $props();

	interface Saved {
		id: string;
		title: string;
		subject: string;
		message: string;
	}
	let area = $state<HTMLTextAreaElement>();
	let texts = $state.raw<Saved[] | null>(null);
	let title = $state('');
	let keeping = $state(false);
	let say = $state('');

	async function ask(method: 'GET' | 'POST' | 'DELETE', what: string | null = null, id = ''): Promise<boolean> {
		try {
			const response = await fetch(`/texts${id && `?id=${encodeURIComponent(id)}`}`, {
				method,
				...(what !== null && { headers: { 'Content-Type': 'application/json' }, body: what })
			});
			const body = await response.json();
			if (response.ok) texts = body as Saved[];
			say = response.ok ? '' : ((body as { say?: string }).say ?? 'It could not be kept.');
			return response.ok;
		} catch {
			say = 'No connection; the letter here is as it was.';
			return false;
		}
	}
	async function keep() {
		if (await ask('POST', JSON.stringify({ title, subject, message }))) {
			say = `Kept as “${title.trim()}”.`;
			keeping = false;
		}
	}
	function insert(value: string) {
		const [from, to] = [area?.selectionStart ?? message.length, area?.selectionEnd ?? message.length];
		onchange({ message: message.slice(0, from) + value + message.slice(to) });
		setTimeout(() => {
			area?.focus();
			area?.setSelectionRange(from + value.length, from + value.length);
		}, 20);
	}
</script>

<label
	>Subject <span class="text-quiet">empty: what is to be done, and the title</span><input
		class="input mt-1"
		maxlength="200"
		value={subject}
		oninput={(e) => onchange({ subject: e.currentTarget.value })}
	/></label
>
<label
	>Message to {of}<textarea
		bind:this={area}
		class="input mt-1 h-28"
		maxlength="4000"
		value={message}
		oninput={(e) => onchange({ message: e.currentTarget.value })}></textarea></label
>
<div class="-mt-2 flex flex-wrap gap-2">
	<Choice
		label="Value to put into the letter to {of}"
		unseen
		narrow
		empty="Value…"
		value=""
		options={valuesOf(bench.plan).map((value) => [value, value.slice(1, -1)])}
		onchoose={insert}
	/>
	<Choice
		label="Saved text for the letter to {of}"
		unseen
		narrow
		empty="Saved text…"
		value=""
		options={(texts ?? []).map(({ id, title }) => [id, title])}
		onopen={() => texts === null && void ask('GET')}
		onchoose={(id) => {
			const text = texts?.find((one) => one.id === id);
			if (text) onchange({ subject: text.subject, message: text.message });
		}}
	/>
	<button class="plain" disabled={message.trim() === ''} onclick={() => (keeping = !keeping)}>Keep this text</button>
</div>
{#if keeping}
	<form
		class="-mt-1 flex gap-2"
		onsubmit={(event) => {
			event.preventDefault();
			void keep();
		}}
	>
		<input
			class="input"
			maxlength="100"
			aria-label="Title of the saved text"
			placeholder="Title to find it by"
			bind:value={title}
		/>
		<button class="button">Keep</button>
	</form>
{/if}
<p class="-mt-2 text-quiet empty:hidden" role="status">{say}</p>
