<script lang="ts">
	import { enhance } from '$app/forms';
	import type { Need } from '../../core/packet';
	import { noDateInWords } from '../../core/pace';
	import { day, moment } from '../dates';
	import { binDraft } from './drafts';
	import { WORK } from './work';

	/** One thing that needs somebody: what, who, since when, and the action that settles it. */
	let { need, zone, now, mayAct }: { need: Need; zone: string; now: string; mayAct: boolean } = $props();

	let correcting = $state(false);
	let wrong = $state('');
	const tone = $derived(
		need.what === 'draft' && need.fault
			? 'brick'
			: {
					unreachable: 'brick',
					held: 'brick',
					declined: 'brick',
					jobs: 'copper',
					lane: 'brick',
					aside: 'brick',
					clock: 'brick',
					ending: 'copper',
					late: 'copper',
					term: 'copper',
					paper: 'thread',
					wording: 'thread',
					turn: 'thread',
					sheet: 'copper',
					draft: 'line'
				}[need.what]
	);
	const stretch = (seconds: number) =>
		seconds < 7200 ? `${Math.round(seconds / 60)} minutes` : `${Math.round(seconds / 3600)} hours`;
	const SIGN = { brick: 'refused or failed', copper: 'waiting too long', thread: 'for you', line: 'draft' };
</script>

{#snippet retry()}
	{#if mayAct}<form method="POST" action="/desk?/retry" use:enhance class="pt-2">
			<button class="button">Try now</button>
		</form>{/if}
{/snippet}

<li class="flex gap-4 border-b border-hairline py-3.5">
	<svg width="10" height="22" role="img" aria-label={SIGN[tone as keyof typeof SIGN]} class="shrink-0">
		<circle cx="5" cy="11" r="4.5" style:fill="var(--{tone})" />
	</svg>
	<div class="min-w-0 flex-1">
		{#if need.what === 'unreachable'}
			<p>
				{need.phone === null ? 'Message' : 'Text message'} to <b class="break-all">{need.phone ?? need.email}</b> came back
			</p>
			<p class="text-[14px] text-quiet">{need.title}, {need.name} · {day(need.since, zone, now)}</p>
			{#if correcting}
				<form
					method="POST"
					action="/packets/{need.packet}?/{need.phone === null ? 'correct' : 'phone'}"
					class="pt-2"
					use:enhance={() =>
						async ({ result, update }) => {
							wrong = result.type === 'failure' ? String(result.data?.say ?? '') : '';
							if (result.type === 'success') {
								correcting = false;
								await update();
							}
						}}
				>
					<input type="hidden" name="person" value={need.person} />
					{#if need.phone === null}
						<label>New address<input class="input mt-1" name="email" type="email" value={need.email} required /></label>
					{:else}
						<label>New number<input class="input mt-1" name="phone" type="tel" value={need.phone} required /></label>
					{/if}
					<p class="wrong empty:hidden" role="alert">{wrong}</p>
					<p class="flex gap-2 pt-2">
						<button class="button primary">Send it there</button><button
							type="button"
							class="button"
							onclick={() => (correcting = false)}>Leave it</button
						>
					</p>
				</form>
			{:else if mayAct}
				<p class="pt-2">
					<button class="button" onclick={() => (correcting = true)}
						>{need.phone === null ? 'Put the address right' : 'Put the number right'}</button
					>
				</p>
			{/if}
		{:else if need.what === 'held'}
			<p><b>{need.name}</b> could not show who they are</p>
			<p class="text-[14px] text-quiet">{need.title} is held · {day(need.since, zone, now)}</p>
			<p class="pt-2"><a class="button" href="/packets/{need.packet}">Look at it</a></p>
		{:else if need.what === 'paper'}
			<p><b>{need.name}</b> brought it back on paper</p>
			<p class="text-[14px] text-quiet">
				{need.title} · {need.doubts === 0
					? 'nothing in doubt'
					: need.doubts === 1
						? 'one thing to look at'
						: `${need.doubts} things to look at`} · {day(need.since, zone, now)}
			</p>
			<p class="pt-2"><a class="button" href="/packets/{need.packet}/paper/{need.person}">Look at it</a></p>
		{:else if need.what === 'wording'}
			<p><b>{need.name}</b> asks for another wording</p>
			<p class="text-[14px] text-quiet">{need.title} · {day(need.since, zone, now)}</p>
			<p class="truncate text-[14px]"><del>{need.words}</del> {need.instead}</p>
			<p class="pt-2"><a class="button" href="/packets/{need.packet}">Answer</a></p>
		{:else if need.what === 'term'}
			<p><b>{need.title}</b> runs out {day(`${need.ends}T12:00:00Z`, zone, now)}</p>
			<p class="text-[14px] text-quiet">The agreement holds until then</p>
			<p class="pt-2"><a class="button" href="/packets/{need.packet}">Look at it</a></p>
		{:else if need.what === 'turn'}
			<p>Your part: <b>{need.title}</b></p>
			<p class="text-[14px] text-quiet">Everyone before you is done · {day(need.since, zone, now)}</p>
			<form method="POST" action="/packets/{need.packet}/sign" class="pt-2">
				<button class="button">Read and sign</button>
			</form>
		{:else if need.what === 'ending'}
			<p><b>{need.title}</b> ends {day(need.deadline, zone, now)}</p>
			<p class="text-[14px] text-quiet">with {need.names}</p>
			<p class="pt-2"><a class="button" href="/packets/{need.packet}">Look at it</a></p>
		{:else if need.what === 'late'}
			<p>
				<b>{need.title}</b>
				{need.middle ? 'will likely' : 'may'} not be done by {day(need.deadline, zone, now)}
			</p>
			<p class="text-[14px] text-quiet">
				with {need.names} · {need.middle
					? `of 100 like it ${Math.round(need.chance * 100)} were not done in that time`
					: noDateInWords(need.unusual)}
			</p>
			{#if need.helps}<p class="text-[14px]">{need.helps}</p>{/if}
			<p class="pt-2"><a class="button" href="/packets/{need.packet}">Look at it</a></p>
		{:else if need.what === 'declined'}
			<p><b>{need.title}</b> was declined</p>
			<p class="text-[14px] text-quiet">{day(need.at, zone, now)}</p>
			<p class="pt-2"><a class="button" href="/packets/{need.packet}">Read why</a></p>
		{:else if need.what === 'jobs'}
			<p><b>{need.count === 1 ? 'One message or seal is' : `${need.count} messages or seals are`}</b> held up</p>
			<p class="text-[14px] break-words text-quiet">{need.error} · tried again by itself</p>
			{@render retry()}
		{:else if need.what === 'clock'}
			<p>
				<b>The machine’s clock jumped</b>
				{need.seconds < 0 ? 'back' : 'forward'} by {stretch(Math.abs(need.seconds))}
			</p>
			<p class="text-[14px] text-quiet">
				{day(need.at, zone, now)}. Records only go forward; whoever runs this Pellum should look at the clock.
			</p>
		{:else if need.what === 'lane'}
			<p><b>{WORK[need.lane].name}</b> has paused since {moment(need.since, zone)}</p>
			<p class="text-[14px] text-quiet">
				{need.waiting >= 1000 ? '1,000 or more' : need.waiting}
				{need.waiting === 1 ? `${WORK[need.lane].one} waits` : `${WORK[need.lane].many} wait`}. One is tried again twice
				a minute; everything else goes on.
			</p>
			<p class="text-[14px] break-words text-quiet">Last time: {need.error}</p>
			{@render retry()}
		{:else if need.what === 'aside'}
			<p>
				{#if need.title}<b>{need.title}</b>:{/if}
				{need.work === 'clock'
					? 'what its time has brought could not be done'
					: need.work === 'draft'
						? 'it could not be sent at its time'
						: `${WORK[need.work].a} could not be done, and is not tried any more by itself`}
			</p>
			<p class="text-[14px] break-words text-quiet">{need.error} · {day(need.since, zone, now)}</p>
			<div class="flex gap-2">
				{#if need.packet && need.title}<p class="pt-2">
						<a class="button" href="/packets/{need.packet}">Look at it</a>
					</p>{/if}
				{@render retry()}
			</div>
		{:else if need.what === 'sheet'}
			<p><b>{need.name}</b> stands open, and something came that can’t go by itself</p>
			<p class="text-[14px] break-words text-quiet">{need.say}</p>
			<p class="pt-2"><a class="button" href="/batches/{need.batch}?show=faulty">Look at its rows</a></p>
		{:else}
			<p>{need.corrects ? 'Being put right' : 'Draft'}: <b>{need.title}</b></p>
			<p class="text-[14px] text-quiet">
				{#if need.corrects}of <span class="font-mono">{need.corrects}</span> ·{/if}
				{need.fault
					? `Did not go at its time: ${need.fault}`
					: need.sendAt
						? `Goes by itself ${moment(need.sendAt, zone)}`
						: need.open === 0
							? 'Ready to go'
							: need.open === 1
								? '1 thing before it can go'
								: `${need.open} things before it can go`} · saved {day(need.savedAt, zone, now)}
			</p>
			<p class="flex gap-2 pt-2">
				<a class="button" href="/bench/{need.draft}">Go on</a>{#if mayAct && !need.corrects}<button
						class="button"
						onclick={() => binDraft(need.draft, need.title)}>Bin</button
					>{/if}
			</p>
		{/if}
	</div>
</li>
