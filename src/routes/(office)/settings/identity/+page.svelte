<script lang="ts">
	import { enhance } from '$app/forms';
	import { MOST } from '$lib/core/identity/asked';
	import { keepFilled } from '$lib/ui/forms';
	import OneOf from '$lib/ui/parts/OneOf.svelte';

	let { data, form } = $props();
	const kept = $derived(form && 'kept' in form && form.kept ? form.kept : data.setting);
	let judges = $derived(String(kept.judges));
</script>

<svelte:head><title>Who people are · Settings · Pellum</title></svelte:head>
<main id="main" class="mx-auto max-w-5xl px-6 py-6">
	<div class="max-w-xl">
		<h1 class="border-b border-hairline pb-2 text-[19px]">Showing who one is</h1>
		<p class="py-3 text-quiet">
			What is asked of somebody is set on the Bench, for each person. Pictures of documents are locked under a key of
			their own, and shown only to those who may judge.
		</p>
		<form method="POST" class="grid gap-4" use:enhance={keepFilled}>
			<fieldset class="grid gap-4" disabled={!data.owner}>
				<label class="grid gap-1"
					>Not asked again for so many days at most <span class="text-quiet">0: asked each time</span><input
						class="input w-28!"
						type="number"
						name="known"
						min="0"
						max={MOST.days}
						required
						value={kept.known}
					/></label
				>
				<div>
					<OneOf
						label="Who judges somebody that is held"
						name="judges"
						bind:value={judges}
						options={[
							['1', 'one of the office who may judge'],
							['2', 'two, who must agree']
						] as const}
						disabled={!data.owner}
					/>
				</div>
				<label class="grid gap-1"
					>Letters that may be off in one part of a name<input
						class="input w-28!"
						type="number"
						name="lettersOff"
						min="0"
						max="3"
						required
						value={kept.lettersOff}
					/></label
				>
				<label class="grid gap-1"
					>Pictures are deleted so many days after the end<input
						class="input w-28!"
						type="number"
						name="keep"
						min="1"
						max={MOST.days}
						required
						value={kept.keep}
					/></label
				>
			</fieldset>
			<p class={form && 'say' in form ? 'wrong' : 'text-moss'} role="status">
				{form && 'say' in form ? form.say : form ? 'Saved.' : ''}
			</p>
			{#if data.owner}<p><button class="button primary">Save</button></p>{/if}
		</form>
	</div>
</main>
