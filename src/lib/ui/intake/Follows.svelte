<script lang="ts">
	import type { FollowUp } from '../../core/intake';
	import { keysOfPlan } from '../../core/field';
	import { isAddress } from '../../core/packet';
	import { roleName } from '../../core/template';
	import Check from '../parts/Check.svelte';
	import Choice from '../parts/Choice.svelte';
	import Menu from '../parts/Menu.svelte';
	import { WhenPart } from '../rules';
	import Faults from './Faults.svelte';
	import type { Making } from './making.svelte';
	import StartsTemplate from './StartsTemplate.svelte';

	/** What is sent or started by itself, at a stop or at the end, by rule. */
	let {
		making,
		templates,
		rows
	}: {
		making: Making;
		templates: { id: string; title: string }[];
		/** rows there are, by follow-up */
		rows: Record<string, number>;
	} = $props();

	type Does = FollowUp['does'];
	const people = $derived(making.template.people.map((person): [string, string] => [person.id, roleName(person)]));
	const stops = $derived(
		making.template.stops.map((stop, i): [string, string] => [
			stop.id,
			`when ${stop.people.map((id) => people.find(([one]) => one === id)?.[1] ?? '').join(' and ')} ${stop.people.length === 1 ? 'has' : 'have'} done it (stop ${i + 1})`
		])
	);
	const put = (id: string, change: Partial<FollowUp>) =>
		making.change(`then ${id}`, (now) => ({
			...now,
			then: now.then.map((one) => {
				if (one.id !== id) return one;
				const { when, ...rest } = { ...one, ...change };
				return when ? { ...rest, when } : rest;
			})
		}));
	const does = (id: string, change: object) => {
		const one = making.setting.then.find((other) => other.id === id);
		if (one) put(id, { does: { ...one.does, ...change } as Does });
	};
	function add(what: Does) {
		const id = making.freshId('then');
		making.set({ then: [...making.setting.then, { id, at: 'completed', does: what }] });
		making.open = id;
	}
	const NAMES: Record<Does['is'], string> = {
		letter: 'A letter',
		template: 'Another template is started',
		row: 'A row in a sheet',
		file: 'It is put into a folder'
	};
	const keys = $derived(keysOfPlan(making.plan));
	function setAt(id: string, value: string) {
		put(id, { at: ['completed', 'declined', 'expired'].includes(value) ? (value as 'completed') : { stop: value } });
	}
</script>

<div class="grid max-w-2xl gap-5">
	<div class="flex flex-wrap items-center gap-3">
		<p class="flex-1 text-quiet">Each in the record of its packet, and each once.</p>
		<Menu
			label="Add…"
			look="button"
			entries={[
				{
					name: NAMES.letter,
					run: () => add({ is: 'letter', to: making.setting.starter, subject: '', message: '', copies: true })
				},
				...(templates[0]
					? [{ name: NAMES.template, run: () => add({ is: 'template', template: templates[0]!.id, people: {} }) }]
					: []),
				{ name: NAMES.row, run: () => add({ is: 'row', keys }) },
				{ name: NAMES.file, run: () => add({ is: 'file', folder: '' }) }
			]}
		/>
	</div>
	{#if making.setting.then.length === 0}<p class="max-w-md py-6 font-serif text-quiet">
			Nothing follows by itself yet. “Add…” sends a letter, starts another template with what was answered, keeps a
			sheet of all cases, or puts them into a folder.
		</p>{/if}
	{#each making.setting.then as one (one.id)}
		<section class="grid gap-3 border-t border-hairline pt-4" aria-label={NAMES[one.does.is]}>
			<div class="flex items-center gap-3">
				<h2 class="flex-1 text-[16px]">{NAMES[one.does.is]}</h2>
				<button
					type="button"
					class="plain"
					onclick={() => making.set({ then: making.setting.then.filter(({ id }) => id !== one.id) })}>Take off</button
				>
			</div>
			<Choice
				label="When"
				value={typeof one.at === 'string' ? one.at : one.at.stop}
				options={[
					['completed', 'when everybody is done and the copies are sealed'],
					...stops,
					['declined', 'when somebody declines'],
					['expired', 'when its last day is over']
				]}
				onchoose={(value) => setAt(one.id, value)}
			/>
			<WhenPart
				bench={making}
				title="Only where"
				always="always"
				source={one.when ?? ''}
				check={making.check}
				onchange={(when) => put(one.id, { when } as Partial<FollowUp>)}
			/>
			{#if one.does.is === 'letter'}
				<Choice
					label="To"
					value={isAddress(one.does.to) ? 'address' : one.does.to}
					options={[...people, ['address', 'an address']]}
					onchoose={(to) => does(one.id, { to: to === 'address' ? 'office@post.example' : to })}
				/>
				{#if isAddress(one.does.to) || !people.some(([id]) => id === (one.does as { to: string }).to)}
					<label
						>Address<input
							class="input mt-1"
							type="email"
							maxlength="254"
							value={one.does.to}
							onchange={(event) => does(one.id, { to: event.currentTarget.value.trim() || making.setting.starter })}
						/></label
					>
				{/if}
				<label
					>Subject<input
						class="input mt-1"
						maxlength="200"
						placeholder={'{title}'}
						value={one.does.subject}
						oninput={(event) => does(one.id, { subject: event.currentTarget.value })}
					/></label
				>
				<label
					>Letter<textarea
						class="input mt-1 h-24"
						maxlength="4000"
						value={one.does.message}
						oninput={(event) => does(one.id, { message: event.currentTarget.value })}></textarea></label
				>
				<Check
					label="With the sealed copies, where there are some by then"
					checked={one.does.copies}
					onchange={(copies) => does(one.id, { copies })}
				/>
			{:else if one.does.is === 'template'}
				<StartsTemplate
					template={one.does.template}
					taken={one.does.people}
					{templates}
					{people}
					onchange={(template, taken) => does(one.id, { template, people: taken })}
				/>
			{:else if one.does.is === 'row'}
				<label
					>Columns, by key<input
						class="input mt-1 font-mono text-[13px]"
						value={one.does.keys.join(', ')}
						onchange={(event) =>
							does(one.id, {
								keys: event.currentTarget.value
									.split(/[\s,]+/)
									.filter(Boolean)
									.slice(0, 200)
							})}
					/></label
				>
				<p>
					{#if rows[one.id]}<a class="text-thread underline" href="/intakes/{making.id}/rows/{one.id}?as=csv" download
							>{rows[one.id] === 1 ? 'One row' : `${rows[one.id]} rows`} as CSV</a
						>,
						<a class="text-thread underline" href="/intakes/{making.id}/rows/{one.id}?as=xlsx" download>as XLSX</a>
					{:else}<span class="text-quiet">No row has come yet.</span>{/if}
				</p>
			{:else}
				<label
					>Folder<input
						class="input mt-1"
						maxlength="80"
						value={one.does.folder}
						onchange={(event) => does(one.id, { folder: event.currentTarget.value.trim() })}
					/></label
				>
			{/if}
			<Faults {making} at={one.id} />
		</section>
	{/each}
</div>
