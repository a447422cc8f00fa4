<script lang="ts">
	import { enhance } from '$app/forms';
	import { keepFilled } from '$lib/ui/forms';
	import Afterwards from '$lib/ui/batches/Afterwards.svelte';
	import ByItself from '$lib/ui/batches/ByItself.svelte';
	import Columns from '$lib/ui/batches/Columns.svelte';
	import Documents from '$lib/ui/batches/Documents.svelte';
	import Rows from '$lib/ui/batches/Rows.svelte';
	import Run from '$lib/ui/batches/Run.svelte';
	import { keepCurrent } from '$lib/ui/frame/live.svelte';
	import type { Answered } from '$lib/ui/packet/form';
	import Choice from '$lib/ui/parts/Choice.svelte';
	import Files from '$lib/ui/parts/Files.svelte';
	import More from '$lib/ui/parts/More.svelte';

	let { data, form } = $props();
	const CHIPS = [
		['all', 'All'],
		['ready', 'Ready'],
		['twice', 'Which one?'],
		['faulty', 'Faulty'],
		['left out', 'Left out'],
		['gone', 'Gone'],
		['have', 'Have'],
		['out', 'Haven’t']
	] as const;
	const answered = $derived(form as Answered | null);
	const going = $derived(data.going !== 'rests');
	const gone = $derived(data.standing.have + data.standing.out + data.standing.ended > 0);

	$effect(() => keepCurrent((id) => id === ''));
</script>

<svelte:head><title>{data.name} · Batches · Pellum</title></svelte:head>
<main id="main" class="flex min-h-[calc(100dvh-46px)] flex-wrap">
	<section aria-labelledby="batch" class="min-w-0 flex-[3_1_640px] px-6 py-5">
		<div class="flex flex-wrap items-center gap-x-4 gap-y-2 pb-3">
			<div class="min-w-0 flex-[1_1_240px]">
				<h1 id="batch" class="text-[19px]">{data.name}</h1>
				<p class="text-quiet">
					each row a packet of <a class="text-thread underline" href="/templates?id={data.template}">{data.title}</a>
					{#if data.heads > 1}· the headings stand in line {data.heads}; what is above was left out{/if}
				</p>
			</div>
			<Run title={data.title} going={data.going} counts={data.counts} own={data.own} run={data.run} now={data.now} />
			{#if !going}<a class="button" href="/batches/{data.id}/sheet" download>The sheet back</a>{/if}
		</div>
		{#if data.byItself.trouble}<form
				method="POST"
				action="?/seen"
				use:enhance
				class="mb-3 flex flex-wrap items-center gap-3 border-l-2 border-copper pl-3"
			>
				<p role="status" class="min-w-0 flex-1">{data.byItself.trouble}</p>
				<button class="button">Seen</button>
			</form>{/if}
		{#if data.stopped}<p class="mb-3 border-l-2 border-copper pl-3" role="status">{data.stopped}</p>{/if}
		<p class="wrong empty:hidden" role="alert">{answered?.form === 'withdraw' ? '' : (answered?.say ?? '')}</p>
		<nav aria-label="Rows" class="flex flex-wrap gap-1.5 pb-3">
			{#each CHIPS.slice(0, gone ? undefined : -2) as [state, name] (state)}
				<a
					class="chip no-underline"
					aria-current={data.list.show === state ? 'true' : undefined}
					href="?show={encodeURIComponent(state)}">{name} {data.counts[state]}</a
				>
			{/each}
			{#if data.changed > 0}<span class="self-center text-copper"
					>{data.changed} gone {data.changed === 1 ? 'row has' : 'rows have'} changed</span
				>{/if}
		</nav>
		<Rows
			id={data.id}
			list={data.list}
			query={data.query}
			names={data.names}
			{going}
			total={data.counts[data.list.show] ?? 0}
			zone={data.organisation.zone}
			now={data.now}
		/>
	</section>
	<aside class="min-w-0 flex-[1_1_300px] border-l border-hairline bg-linen px-5 py-5">
		{#if gone}
			<section class="pb-6"><Afterwards standing={data.standing} days={data.days} now={data.now} {answered} /></section>
		{/if}
		<fieldset disabled={going} class="min-w-0">
			{#if data.sheets.length > 1}
				<form method="POST" action="?/sheet" use:enhance onchange={(event) => event.currentTarget.requestSubmit()}>
					<Choice
						label="Sheet of the workbook"
						name="sheet"
						value={data.sheet}
						options={data.sheets.map((one): [string, string] => [one, one])}
					/>
				</form>
			{/if}
			<h2 class="pt-2 pb-2 text-[16px]">Which column is what</h2>
			<Columns wanted={data.wanted} names={data.names} mapping={data.setting.mapping} values={data.setting.values} />
			<h2 class="pt-6 pb-2 text-[16px]">Only rows where</h2>
			<form method="POST" action="?/filter" use:enhance={keepFilled} class="grid gap-2">
				<label
					><span class="unseen">Only rows where</span><input
						class="input font-mono"
						name="filter"
						maxlength="2000"
						autocomplete="off"
						placeholder={data.keys[0] ? `${data.keys.at(-1)} = "…"` : ''}
						aria-describedby="filter-help"
						value={data.setting.filter}
					/></label
				>
				<p class="wrong empty:hidden" role="alert">{data.fault}</p>
				<p id="filter-help" class="text-[14px] text-quiet">
					A rule over the columns: <span class="font-mono wrap-anywhere">{data.keys.join(', ')}</span>. Empty lets all
					pass.
				</p>
				<p><button class="button">Filter</button></p>
			</form>
			<div class="pt-4">
				<More label="Everybody’s letter" look="font-semibold" open={data.setting.letter !== undefined}>
					<form method="POST" action="?/letter" class="grid gap-2 pt-2" use:enhance={keepFilled}>
						<label
							>Subject <span class="text-quiet">empty: the template’s</span><input
								class="input mt-1"
								name="subject"
								maxlength="200"
								value={data.setting.letter?.subject ?? ''}
							/></label
						>
						<label
							>Message<textarea class="input mt-1 h-24" name="message" maxlength="4000"
								>{data.setting.letter?.message ?? ''}</textarea
							></label
						>
						<p><button class="button">Keep it</button></p>
					</form>
				</More>
			</div>
			<h2 class="pt-6 pb-2 text-[16px]">Documents of their own</h2>
			<Documents id={data.id} documents={data.documents} />
			<h2 class="pt-6 pb-2 text-[16px]">A newer sheet</h2>
			<form method="POST" action="?/again" enctype="multipart/form-data" use:enhance class="grid gap-2">
				<Files label="A newer sheet" takes="XLSX, CSV" name="sheet" accept=".xlsx,.xlsm,.csv,text/csv" required />
				<p class="text-[14px] text-quiet">
					{data.byItself.open ? 'What is ready goes at once. ' : ''}It takes this one’s place. Who has had theirs is
					left out; only new rows go.
				</p>
				<p><button class="button">Take it in</button></p>
			</form>
			<h2 class="pt-6 pb-2 text-[16px]">By itself</h2>
			<ByItself byItself={data.byItself} address={data.api} />
		</fieldset>
	</aside>
</main>
