<script lang="ts">
	import { datesIn } from '../../core/intl';
	import Files from '../parts/Files.svelte';
	import Day from '../parts/Day.svelte';
	import { enhance } from '$app/forms';

	/** Days on which nobody works: taken from a calendar file, or written in one by one. */
	let {
		days,
		owner,
		said
	}: {
		days: { day: string; name: string }[];
		owner: boolean;
		/** what a form of this page got back */
		said: Record<string, string | number | boolean | undefined>;
	} = $props();

	const written = (day: string) =>
		datesIn('en-GB', { dateStyle: 'full', timeZone: 'UTC' }).format(new Date(`${day}T00:00:00Z`));
</script>

<h1 class="border-b border-hairline pb-2 text-[19px]">Public holidays</h1>
<p class="pt-2 text-[14px] text-quiet">Deadlines that count working days leave these out, and weekends.</p>
{#if owner}
	<form
		method="POST"
		action="?/holidays"
		enctype="multipart/form-data"
		use:enhance
		class="flex flex-wrap items-end gap-2 pt-3"
	>
		<div class="min-w-0 flex-1">
			<Files label="From a calendar file" takes="a calendar file (.ics)" name="calendar" accept=".ics,text/calendar" />
		</div>
		<button class="button">Take them in</button>
	</form>
	<form method="POST" action="?/holiday" use:enhance class="flex flex-wrap items-end gap-2 pt-3">
		<div class="w-48"><Day label="Day" name="day" value="" required /></div>
		<label class="min-w-0 flex-1">Called<input class="input mt-1" name="name" maxlength="120" /></label>
		<button class="button">Add the day</button>
	</form>
{/if}
{#if said['form'] === 'holidays'}<p role="alert" class={said['say'] ? 'wrong' : 'text-moss'}>
		{said['say'] ?? (said['added'] ? `${said['added']} days taken in.` : 'Saved.')}
	</p>{/if}
<ul class="max-h-72 overflow-y-auto pt-2" aria-label="Public holidays">
	{#each days as { day, name } (day)}
		<li class="flex items-center gap-3 border-b border-hairline py-1 text-[14px]">
			<span class="w-56 shrink-0">{written(day)}</span><span class="min-w-0 flex-1 truncate">{name}</span>
			{#if owner}
				<form method="POST" action="?/holiday" use:enhance>
					<input type="hidden" name="day" value={day} /><button
						class="plain"
						name="remove"
						value="yes"
						aria-label="Take out {name}, {written(day)}">Take out</button
					>
				</form>
			{/if}
		</li>
	{:else}<li class="py-2 font-serif text-quiet">None yet: every weekday counts as a working day.</li>
	{/each}
</ul>
