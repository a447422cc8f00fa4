<script lang="ts">
	import { enhance } from '$app/forms';
	import { keepFilled } from '$lib/ui/forms';
	import { moment } from '$lib/ui/dates';
	import Check from '$lib/ui/parts/Check.svelte';
	import Retention from '$lib/ui/settings/Retention.svelte';
	import { size } from '$lib/ui/size';

	let { data, form } = $props();
	const kept = $derived(form && 'kept' in form && form.kept ? form.kept : data.setting);
	const about = $derived(form?.form === 'setting' ? form : null);
</script>

<svelte:head><title>Keeping · Settings · Pellum</title></svelte:head>
<main id="main" class="mx-auto max-w-5xl px-6 py-6">
	<h1 class="border-b border-hairline pb-2 text-[19px]">What becomes of what has ended</h1>
	<form method="POST" action="?/setting" class="max-w-xl pt-4" use:enhance={keepFilled}>
		<fieldset class="grid gap-4" disabled={!data.owner}>
			<label class="grid gap-1"
				>How copies are called
				<input class="input" name="fileNames" maxlength="200" required value={kept.fileNames} />
				<span class="text-[14px] text-quiet"
					>May hold {data.named.join(', ')}, a role’s name as in {'{musician.name}'}, and the key of any answer. Letters
					that a file’s name can’t have are left out.</span
				></label
			>
			<label class="grid gap-1"
				>What is in the bin goes for good after how many days?
				<input
					class="input w-28"
					type="number"
					name="binDays"
					min="1"
					max="3650"
					required
					value={kept.binDays}
				/></label
			>
			<Check
				label="Two people agree before anything is disposed of"
				name="two"
				checked={kept.two}
				disabled={!data.owner}
			/>
		</fieldset>
		<p class="{about && 'say' in about ? 'wrong' : 'text-moss'} py-2" role="status">
			{about ? ('say' in about ? about.say : 'Saved.') : ''}
		</p>
		{#if data.owner}<p><button class="button primary">Save</button></p>{/if}
	</form>
	<Retention
		rules={data.rules}
		templates={data.templates}
		folders={data.folders}
		types={data.types}
		owner={data.owner}
		answered={form && 'rule' in form ? { say: form.say ?? '', rule: form.rule } : null}
		done={form?.form === 'rule' && 'done' in form}
	/>
	<section aria-labelledby="weight" class="max-w-xl pt-8">
		<h2 id="weight" class="border-b border-hairline pb-1 text-[17px]">What it weighs</h2>
		{#if data.weight}
			<dl class="grid grid-cols-[auto_1fr] gap-x-6 gap-y-1 pt-3">
				{#each [['All of it', data.weight.all], ['Sealed copies and evidence sheets', data.weight.sealed], ['Documents', data.weight.documents], ['Pictures and other files', data.weight.others]] as [name, bytes] (name)}
					<dt class="text-quiet">{name}</dt>
					<dd>{size(Number(bytes))}</dd>
				{/each}
			</dl>
			<p class="pt-2 text-[14px] text-quiet">
				In {data.weight.files} files, weighed {moment(data.weight.at, data.organisation.zone)}. Files that nothing names
				any more are put away each day.
			</p>
		{:else}<p class="pt-3 text-quiet">It is weighed once a day; it hasn’t been yet.</p>{/if}
		{#if data.owner}<form method="POST" action="?/weigh" class="pt-2" use:enhance={keepFilled}>
				<button class="button">Weigh it now</button>
			</form>{/if}
	</section>
</main>
