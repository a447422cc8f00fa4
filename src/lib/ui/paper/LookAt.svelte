<script lang="ts">
	import { enhance } from '$app/forms';
	import { invalidateAll } from '$app/navigation';
	import { untrack } from 'svelte';
	import type { ReturnLook } from '../../core/paper';
	import { ENGLISH } from '../../words/words';
	import { moment } from '../dates';
	import { keepFilled } from '../forms';
	import Check from '../parts/Check.svelte';
	import Choice from '../parts/Choice.svelte';
	import More from '../parts/More.svelte';
	import Bring from './Bring.svelte';
	import PagePair from './PagePair.svelte';
	import { doubtSays, STATE } from './says';

	/** What came back on paper, page by page beside what went out; what is in doubt, and the ways to judge it. */
	let { look, form }: { look: ReturnLook; form: { form?: string; say?: string; at?: string; word?: string } | null } =
		$props();

	const first = untrack(() => look.pages.findIndex((one) => one.doubts.length > 0));
	let number = $state(Math.max(0, first));
	let doubt = $state<number | null>(first < 0 ? null : 0);
	const page = $derived(look.pages[number]);
	const base = $derived(`/packets/${look.packet}/paper/${look.person.id}`);
	const back = $derived(look.is === 'doubts' || look.is === 'sure');
	const inDoubt = $derived(look.pages.filter((one) => one.doubts.length > 0));
	const missing = $derived(look.pages.filter((one) => one.picture === null).map((one) => one.number + 1));
	const mayBring = $derived(look.is === 'fetched' || look.is === 'again' || back);
	let busy = $state(false);
	const said = (what: string) => (form?.form === what ? (form.say ?? '') : '');

	function go(to: number, at: number | null) {
		number = to;
		doubt = at;
	}
</script>

<p class="pb-4" role="status">
	{#if look.is}{STATE[look.is]}
		<span class="text-quiet">{moment(look.since, look.zone)}</span>
		{#if look.is === 'looking'}<span class="text-quiet">
				· {look.done} of {look.pictures.length} pictures held against their pages</span
			>{/if}
		{#if look.word}<span class="block whitespace-pre-wrap">“{look.word}”</span>{/if}
	{:else}They have not fetched it. Print it for them, where it goes by post.{/if}
</p>
<div class="flex flex-wrap gap-6">
	<section class="min-w-0 flex-[3_1_560px]" aria-labelledby="pages">
		<h2 class="pb-2 text-[16px]" id="pages">Pages</h2>
		<ul class="flex flex-wrap gap-2 pb-3">
			{#each look.pages as one (one.number)}
				<li>
					<button class="button" aria-pressed={one.number === number} onclick={() => go(one.number, null)}
						>{one.number + 1}<span class={one.doubts.length > 0 ? 'text-brick' : 'text-quiet'}
							>{one.picture === null
								? ' · not here'
								: one.doubts.length > 0
									? ` · ${one.doubts.length} in doubt`
									: ' · as it went out'}</span
						></button
					>
				</li>
			{/each}
		</ul>
		{#if page}<PagePair {page} {base} chosen={doubt} />{/if}
	</section>
	<section class="grid min-w-0 flex-[1_1_320px] content-start gap-5" aria-labelledby="doubts">
		<div>
			<h2 class="pb-2 text-[16px]" id="doubts">In doubt</h2>
			{#if look.done > 0}
				<ul class="grid gap-1">
					{#each inDoubt as one (one.number)}
						{#each one.doubts as each, n (n)}
							<li>
								<button
									class="plain w-full rounded-sm px-2 py-1 text-start {number === one.number && doubt === n
										? 'bg-wash'
										: ''}"
									onclick={() => go(one.number, n)}
									><span class="text-quiet">Page {one.number + 1}</span> {doubtSays(each)}</button
								>
							</li>
						{/each}
					{/each}
					{#each look.foreign as each (each.picture)}
						<li class="px-2 py-1">
							{doubtSays(each)}
							<a class="text-thread underline" href="{base}/pictures/{each.picture}" target="_blank" rel="noopener"
								>See it</a
							>
						</li>
					{/each}
				</ul>
				{#if inDoubt.length === 0 && look.foreign.length === 0}<p class="text-moss">
						Nothing: every page is there, unchanged, and signed at each place.
					</p>{/if}
				{#each look.twice as each (each.picture)}
					<p class="pt-1 text-[14px] text-quiet">
						Page {each.page + 1} came more than once; the better picture is kept.
						<a class="text-thread underline" href="{base}/pictures/{each.picture}" target="_blank" rel="noopener"
							>See the other</a
						>
					</p>
				{/each}
			{:else}<p class="text-quiet">Nothing has come back yet.</p>{/if}
		</div>
		{#if look.mayNot}
			<p>{look.mayNot}</p>
		{:else if back}
			<form
				method="POST"
				action="?/accept"
				class="grid gap-2 border-s-[3px] border-moss bg-linen px-4 py-3"
				use:enhance={() => {
					busy = true;
					return async ({ update }) => {
						await update({ reset: false });
						busy = false;
					};
				}}
			>
				<h3 class="text-[16px]">Accept it</h3>
				<p class="text-[14px] text-quiet">
					The scanned pages stand in the document from now on, for everybody after them.
				</p>
				{#if look.toConfirm.length > 0}
					<More label="Take writing for data" look="" open={look.toConfirm.some((one) => one.needed)}>
						<div class="grid gap-3">
							<p class="text-[14px] text-quiet">
								Only what you have read and confirm is taken. The rest stays in the picture.
							</p>
							{#each look.toConfirm as one (one.field)}
								<div class="grid gap-1">
									{#if one.options.length > 0}
										<Choice
											label={one.label}
											name="read {one.field}"
											value=""
											empty="not read"
											options={[['', 'not read'], ...one.options]}
										/>
									{:else}
										<label
											>{one.label}{one.needed ? ', needed' : ''}<input
												class="input mt-1"
												name="read {one.field}"
												maxlength="2000"
												onfocus={() => go(one.page, null)}
											/></label
										>
									{/if}
									<Check label="I have read this" name="sure {one.field}" />
								</div>
							{/each}
						</div>
					</More>
				{/if}
				<label
					>A note for the record<textarea class="input mt-1" name="note" rows="2" maxlength="1000"></textarea></label
				>
				<p class="wrong empty:hidden" role="alert">{said('accept')}</p>
				<p>
					<button class="button {look.is === 'sure' ? 'primary' : ''}" disabled={busy}
						>{busy ? 'Making the document…' : 'Accept'}</button
					>
				</p>
			</form>
			<form
				method="POST"
				action="?/ask"
				class="grid gap-2 border-s-[3px] border-copper bg-linen px-4 py-3"
				use:enhance={keepFilled}
			>
				<h3 class="text-[16px]">Ask again</h3>
				<p class="text-[14px] text-quiet">They are told which pages, and why. The others are kept.</p>
				<div class="flex flex-wrap gap-x-4 gap-y-1">
					{#each look.pages as one (one.number)}
						<Check
							label="page {one.number + 1}"
							name="page"
							value={String(one.number)}
							checked={one.doubts.length > 0}
						/>
					{/each}
				</div>
				<label
					>A word to them<textarea class="input mt-1" name="word" rows="2" maxlength="1000"
						>{form?.form === 'ask' ? (form.word ?? '') : ''}</textarea
					></label
				>
				<p class="wrong empty:hidden" role="alert">{said('ask')}</p>
				<p><button class="button {look.is === 'doubts' ? 'primary' : ''}">Ask again</button></p>
			</form>
			<form
				method="POST"
				action="?/refuse"
				class="grid gap-2 border-s-[3px] border-brick bg-linen px-4 py-3"
				use:enhance={keepFilled}
			>
				<h3 class="text-[16px]">Refuse it</h3>
				<p class="text-[14px] text-quiet">Nothing of it is taken. They can fetch it anew, or sign on their page.</p>
				<label
					>Why, in words for them<textarea class="input mt-1" name="word" rows="2" maxlength="1000"
						>{form?.form === 'refuse' ? (form.word ?? '') : ''}</textarea
					></label
				>
				<p class="wrong empty:hidden" role="alert">{said('refuse')}</p>
				<p><button class="button grave">Refuse</button></p>
			</form>
		{/if}
		{#if !look.mayNot && (mayBring || look.is === null || look.is === 'refused')}
			<More label="By post" look="" open={!back}>
				<div class="grid gap-3">
					<form method="POST" action="{base}/pdf">
						<button class="button">Fetch the PDF for them</button>
						<span class="block pt-1 text-[14px] text-quiet"
							>To be printed and posted; that it was is in the record.</span
						>
					</form>
					{#if mayBring}
						<Bring
							{base}
							words={ENGLISH}
							pages={look.pages.length}
							pictures={look.pictures}
							missing={look.pictures.some((one) => !one.handedIn) ? missing : []}
							onchange={() => void invalidateAll()}
						/>
					{/if}
				</div>
			</More>
		{/if}
	</section>
</div>
