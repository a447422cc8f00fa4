<script lang="ts">
	import { enhance } from '$app/forms';
	import type { IdentityLook } from '../../core/identity';
	import { moment } from '../dates';
	import { CHECK, OUTCOME, SIDE, VERDICT } from './says';
	import Shown from './Shown.svelte';

	/** What somebody handed in, beside what was found and who they should be; and the ways to judge. */
	let {
		look,
		form
	}: {
		look: IdentityLook;
		form: { form?: string; say?: string; of?: string; pass?: string; kept?: { note: string; word: string } } | null;
	} = $props();

	let chosen = $state(0);
	const one = $derived(look.tries[chosen]);
	const pass = $derived(form?.form === 'show' && form.of === one?.id ? form.pass : undefined);
	const base = $derived(`/packets/${look.packet}/identity/${look.person.id}`);
	const kept = $derived(form?.form === 'judge' ? form.kept : undefined);
	const DOES = [
		['let through', 'Release: they go on', 'is let through'],
		['another try', 'Ask again', 'may try again'],
		['refuse', 'Refuse', 'is refused']
	] as const;
</script>

<div class="flex flex-wrap gap-6">
	<section class="min-w-0 flex-[3_1_520px]" aria-labelledby="pictures">
		<h2 class="pb-2 text-[16px]" id="pictures">What was handed in</h2>
		{#if look.tries.length === 0}
			<p>No pictures were handed in.</p>
		{:else}
			<ul class="flex flex-wrap gap-2 pb-3" aria-label="Tries">
				{#each look.tries as each, i (each.id)}
					<li>
						<button class="button" aria-pressed={i === chosen} onclick={() => (chosen = i)}
							>Try {look.tries.length - i}, {moment(each.at, look.zone)}</button
						>
					</li>
				{/each}
			</ul>
		{/if}
		{#if one}
			<p class="pb-3">
				{one.kind === 'identity card' ? 'An' : 'A'}
				{one.kind}. {one.verdict ? VERDICT[one.verdict] : 'The ID desk has not looked yet.'}
			</p>
			{#if one.deleted}
				<p class="pb-3">The pictures have been deleted, as they are after their time. What was found stays.</p>
			{:else if look.mayNot}
				<p class="pb-3">{look.mayNot}</p>
			{:else if pass}
				<div class="grid gap-3 pb-4 sm:grid-cols-2">
					{#each one.pictures as { side } (side)}
						<Shown src="{base}/{one.id}/{side}?pass={pass}" name={SIDE[side]} />
					{/each}
				</div>
			{:else}
				<form method="POST" action="?/show" class="pb-4" use:enhance>
					<input type="hidden" name="try" value={one.id} />
					<button class="button {look.held ? '' : 'primary'}">Show the pictures</button>
					<span class="ps-2 text-[14px] text-quiet">That you looked is written into the record.</span>
					<p class="wrong empty:hidden" role="alert">{form?.form === 'show' ? (form.say ?? '') : ''}</p>
				</form>
			{/if}
			<table class="w-full text-[14px]">
				<caption class="pb-1 text-start text-[15px]">What the ID desk found</caption>
				<thead class="text-start text-quiet">
					<tr
						>{#each ['What', 'Outcome', 'Measure'] as head (head)}<th class="pb-1 text-start font-normal" scope="col"
								>{head}</th
							>{/each}</tr
					>
				</thead>
				<tbody>
					{#each one.checks as { check, outcome, measure } (check)}
						<tr class="border-t border-hairline align-baseline">
							<th class="py-1 pe-3 text-start font-normal" scope="row">{CHECK[check]}</th>
							<td class="whitespace-nowrap pe-3 {OUTCOME[outcome].look}">{OUTCOME[outcome].say}</td>
							<td class="tabular-nums">{measure}</td>
						</tr>
					{/each}
				</tbody>
			</table>
			{#if look.tries.some((each) => !each.deleted) && !look.mayNot}
				<form method="POST" action="{base}/zip" class="pt-4">
					<button class="button">All pictures as a ZIP</button>
					<span class="ps-2 text-[14px] text-quiet">With a list of the checks; written into the record.</span>
				</form>
			{/if}
		{/if}
	</section>
	<section class="min-w-0 flex-[1_1_320px]" aria-labelledby="who">
		<h2 class="pb-2 text-[16px]" id="who">Who it should be</h2>
		<dl class="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 pb-5">
			<dt class="text-quiet">Name</dt>
			<dd>{look.person.name}</dd>
			<dt class="text-quiet">Address</dt>
			<dd class="break-words">{look.person.email}</dd>
			{#each look.answered as { at, right, of } (at)}
				<dt class="text-quiet">Answers</dt>
				<dd>{right} of {of} right, {moment(at, look.zone)}</dd>
			{/each}
		</dl>
		{#if look.held && !look.mayNot}
			<form method="POST" action="?/judge" class="border-s-[3px] border-brick bg-linen px-4 py-3" use:enhance>
				<h2 class="text-[16px]">Judge</h2>
				{#if look.judges > 1}
					<p class="text-[14px]">
						Two must agree.
						{#each look.agreed as { name, how } (name + how)}
							{name} has judged: {DOES.find(([way]) => way === how)![2]}.
						{/each}
					</p>
				{/if}
				<label class="block pt-2"
					>A note for the record<textarea
						class="input mt-1"
						name="note"
						rows="2"
						maxlength="1000"
						value={kept?.note ?? ''}></textarea></label
				>
				<label class="block pt-2"
					>A word to them, where they are asked again<textarea
						class="input mt-1"
						name="word"
						rows="2"
						maxlength="500"
						value={kept?.word ?? ''}></textarea></label
				>
				<p class="wrong empty:hidden" role="alert">{form?.form === 'judge' ? (form.say ?? '') : ''}</p>
				<p class="flex flex-wrap gap-2 pt-2">
					{#each DOES as [how, say], i (how)}
						<button class="button {i === 0 ? 'primary' : how === 'refuse' ? 'grave' : ''}" name="how" value={how}
							>{say}</button
						>
					{/each}
				</p>
				<p class="pt-2 text-[14px] text-quiet">Refusing ends their part, and needs a note.</p>
			</form>
		{:else if !look.held}
			<p>Nobody waits here for a judgement.</p>
		{/if}
	</section>
</div>
