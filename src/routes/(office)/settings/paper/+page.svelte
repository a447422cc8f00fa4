<script lang="ts">
	import { enhance } from '$app/forms';
	import { keepFilled } from '$lib/ui/forms';
	import Check from '$lib/ui/parts/Check.svelte';

	let { data, form } = $props();
	const kept = $derived(form && 'kept' in form && form.kept ? form.kept : data.setting);
</script>

<svelte:head><title>On paper · Settings · Pellum</title></svelte:head>
<main id="main" class="mx-auto max-w-5xl px-6 py-6">
	<div class="max-w-xl">
		<h1 class="border-b border-hairline pb-2 text-[19px]">Signing on paper</h1>
		<p class="py-3 text-quiet">
			Who may sign in ink is set on the Bench, for each person. What comes back is held against what went out, word by
			word; the scanned pages then stand in the document.
		</p>
		<form method="POST" class="grid gap-4" use:enhance={keepFilled}>
			<fieldset class="grid gap-4" disabled={!data.owner}>
				<Check
					label="People may be let sign on paper"
					name="permitted"
					checked={kept.permitted}
					disabled={!data.owner}
				/>
				<Check
					label="What is surely right goes on by itself; the rest waits on the Desk"
					name="goesOn"
					checked={kept.goesOn}
					disabled={!data.owner}
				/>
				<label class="grid gap-1"
					>Where it may be sent by post <span class="text-quiet">empty: only brought back by the link</span><textarea
						class="input"
						name="post"
						rows="4"
						maxlength="400"
						value={kept.post}></textarea></label
				>
			</fieldset>
			<p class={form && 'say' in form ? 'wrong' : 'text-moss'} role="status">
				{form && 'say' in form ? form.say : form ? 'Saved.' : ''}
			</p>
			{#if data.owner}<p><button class="button primary">Save</button></p>{/if}
		</form>
	</div>
</main>
