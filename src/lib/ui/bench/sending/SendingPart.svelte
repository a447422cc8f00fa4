<script lang="ts">
	import Switch from '../../parts/Switch.svelte';
	import Check from '../../parts/Check.svelte';
	import More from '../../parts/More.svelte';
	import Choice from '../../parts/Choice.svelte';
	import type { Plan, Sending } from '../../../core/packet';
	import type { Bench } from '../bench.svelte';
	import { changeSending, type Change } from '../../../core/plan';

	/** What holds for the sending as a whole: the time, reminders, the term, what signers may do, how it is filed. */
	let { bench }: { bench: Bench } = $props();

	const plan = $derived(bench.plan);
	const folders = $derived(bench.office.folders ?? []);
	const hasTemplate = $derived(bench.asTemplate || plan.from !== undefined);
	const sending = $derived(plan.sending ?? {});
	const timeLocked = $derived(bench.isLocked('deadline'));
	const locked = $derived(bench.isLocked('sending'));
	const set = (name: string, change: Change<Sending>, burst = false) =>
		bench.change(name, changeSending(plan, change), burst);

	/** A whole number within its bounds; anything else is put back. */
	function whole(event: Event, least: number, most: number, was: number | undefined, then: (n: number) => void) {
		const input = event.currentTarget as HTMLInputElement;
		const n = Math.round(input.valueAsNumber);
		if (n >= least && n <= most) then(n);
		else input.value = String(was ?? '');
	}

	const PERMITTED = [
		['handOver', 'hand their part over'],
		['wording', 'ask for another wording'],
		['selfNaming', 'name themselves for another part']
	] as const;
	/** no folder is chosen here; no folder has this name, since names are trimmed */
	const UNSAID = ' ';
	const FILED = [
		['type', 'Type', 80],
		['ownReference', 'Your own reference', 80]
	] as const;
</script>

{#snippet days(label: string, value: number | undefined, most: number, then: (n: number) => void, least = 1)}
	<input
		class="input w-16!"
		type="number"
		min={least}
		max={most}
		aria-label={label}
		value={value ?? ''}
		onchange={(e) => whole(e, least, most, value, then)}
	/>
{/snippet}

<fieldset class="min-w-0" disabled={timeLocked}>
	<legend
		>Time to complete{#if timeLocked}&nbsp;<span class="text-quiet">set by the template</span>{/if}</legend
	>
	<p class="flex min-h-7 flex-wrap items-center gap-2 pt-1">
		<Switch
			label="ends after"
			on={plan.days !== null}
			onturn={(on) => bench.change('deadline', { ...plan, days: on ? 14 : null } satisfies Plan)}
		/>
		{#if plan.days !== null}
			{@render days('Days to complete', plan.days, 730, (n) => bench.change('deadline', { ...plan, days: n }))}
			<Choice
				label="Which days count"
				unseen
				narrow
				value={sending.workingDays ? 'working' : 'all'}
				options={[
					['all', 'days'],
					['working', 'working days']
				]}
				disabled={timeLocked}
				onchoose={(which) => set('which days count', { workingDays: which === 'working' || undefined })}
			/>
		{/if}
	</p>
	{#if plan.days !== null}
		<p class="flex items-center gap-2 pt-2">
			<Switch
				label="warn"
				on={sending.warning !== undefined}
				onturn={(on) => set('warning', { warning: on ? 2 : undefined })}
			/>
			{#if sending.warning !== undefined}
				{@render days('Days of warning before the end', sending.warning, 60, (n) => set('warning', { warning: n }))} days
				before
			{:else}those who still have it{/if}
		</p>
	{/if}
</fieldset>
<fieldset disabled={locked}>
	<legend
		>Reminders{#if locked}&nbsp;<span class="text-quiet">set by the template</span>{/if}</legend
	>
	<p class="pt-1">
		<Switch
			label="remind whoever it waits for"
			on={sending.reminders !== undefined}
			onturn={(on) => set('reminders', { reminders: on ? { after: 3, every: 2, most: 5 } : undefined })}
		/>
	</p>
	{#if sending.reminders}
		{@const r = sending.reminders}
		<p class="flex flex-wrap items-center gap-2 pt-2">
			after {@render days('Days to the first reminder', r.after, 365, (after) =>
				set('reminders', { reminders: { ...r, after } })
			)} days, then every
			{@render days('Days between reminders', r.every ?? undefined, 365, (every) =>
				set('reminders', { reminders: { ...r, every } })
			)}, at most
			{@render days('Reminders at most', r.most, 50, (most) => set('reminders', { reminders: { ...r, most } }))}
		</p>
	{/if}
</fieldset>
<fieldset disabled={locked}>
	<legend>The agreement holds</legend>
	<p class="flex min-h-7 items-center gap-2 pt-1">
		<Switch
			label="for"
			on={sending.term !== undefined}
			onturn={(on) => set('term', { term: on ? { months: 12, notice: 60 } : undefined })}
		/>
		{#if sending.term}
			{@const t = sending.term}
			{@render days('Months it holds', t.months, 600, (months) => set('term', { term: { ...t, months } }))} months
		{:else}as long as it says itself{/if}
	</p>
	{#if sending.term}
		{@const t = sending.term}
		<p class="flex items-center gap-2 pt-2">
			<Switch
				label="tell me"
				on={t.notice !== null}
				onturn={(on) => set('renewal notice', { term: { ...t, notice: on ? 60 : null } })}
			/>
			{#if t.notice !== null}{@render days('Days of notice before the term ends', t.notice, 730, (notice) =>
					set('renewal notice', { term: { ...t, notice } })
				)}{/if} days before it ends
		</p>
	{/if}
</fieldset>
<fieldset disabled={locked}>
	<legend class="pb-1">Those who take part may</legend>
	{#each PERMITTED as [what, name] (what)}
		<p class="py-1">
			<Check label={name} checked={sending[what] ?? false} onchange={(on) => set(name, { [what]: on || undefined })} />
		</p>
	{/each}
	<p class="py-1">
		<Check
			label="who gets a copy sees how it stands when the route comes to them"
			checked={sending.earlyCopies ?? false}
			onchange={(on) => set('early copies', { earlyCopies: on || undefined })}
		/>
	</p>
</fieldset>
<More
	label="How it is filed"
	look=""
	open={FILED.some(([what]) => sending[what]) || Boolean(sending.description ?? sending.folder)}
>
	<fieldset class="grid gap-3" disabled={locked}>
		{#if bench.correcting}
			<p class="text-[14px] text-quiet">Its folder is changed on the packet’s own page.</p>
		{:else}
			<Choice
				label="Folder"
				value={sending.folder ?? UNSAID}
				disabled={locked}
				options={[
					[UNSAID, hasTemplate ? 'that of the template' : 'none'],
					...(hasTemplate ? [['', 'none'] as const] : []),
					...folders.map((folder) => [folder, folder] as const),
					...(sending.folder && !folders.includes(sending.folder)
						? [[sending.folder, `${sending.folder}, not yours`] as const]
						: [])
				]}
				onchoose={(folder) => set('folder', { folder: folder === UNSAID ? undefined : folder })}
			/>
		{/if}
		{#each FILED as [what, name, most] (what)}
			<label
				>{name}<input
					class="input mt-1"
					maxlength={most}
					value={sending[what] ?? ''}
					oninput={(e) => set(name.toLowerCase(), { [what]: e.currentTarget.value }, true)}
				/></label
			>
		{/each}
		<label
			>Description<textarea
				class="input mt-1 h-16"
				maxlength="2000"
				value={sending.description ?? ''}
				oninput={(e) => set('description', { description: e.currentTarget.value }, true)}></textarea></label
		>
	</fieldset>
</More>
