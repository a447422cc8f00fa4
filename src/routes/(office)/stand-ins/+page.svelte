<script lang="ts">
	import { enhance } from '$app/forms';
	import { keepFilled } from '$lib/ui/forms';
	import Choice from '$lib/ui/parts/Choice.svelte';
	import { moment } from '$lib/ui/dates';
	import { keepCurrent } from '$lib/ui/frame/live.svelte';

	let { data } = $props();
	let mode = $derived(data.desk as string);
	const DESK: [string, string][] = [
		['as it is', 'as it is'],
		['unsure', 'that it is unsure'],
		['fails', 'that it fails'],
		['slow', 'slowly'],
		['down', 'not at all']
	];
	const zone = $derived(data.organisation.zone);
	$effect(() => keepCurrent());
</script>

<svelte:head><title>Stand-ins · Pellum</title></svelte:head>
<main id="main" class="flex flex-wrap gap-8 px-6 py-5">
	<section aria-labelledby="mailbox" class="min-w-0 flex-[2_1_560px]">
		<h1 id="mailbox" class="text-[19px]">
			Mailbox <span class="text-[14px] font-normal text-quiet">every message, kept instead of sent</span>
		</h1>
		{#if data.smtp}<p class="py-2 text-copper">
				Mail goes to an SMTP server at present, so nothing new arrives here.
			</p>{/if}
		<form method="GET" role="search" class="flex gap-2 py-3">
			<label class="unseen" for="to">Messages to</label>
			<input
				id="to"
				name="to"
				type="search"
				class="input w-80 min-w-0 shrink"
				placeholder="Only to this address"
				value={data.to}
			/>
			<button class="button">Show</button>
		</form>
		<div class="overflow-x-auto">
			<table class="list">
				<thead><tr><th>To</th><th>Subject</th><th>From</th><th>When</th></tr></thead>
				<tbody>
					{#each data.messages as message (message.id)}
						<tr class="hover:bg-wash">
							<td class="break-all">{message.recipient}</td>
							<td
								><a class="font-semibold no-underline hover:underline" href="/stand-ins/mailbox/{message.id}"
									>{message.subject}</a
								>{#if message.attachments.length > 0}<span class="text-quiet">
										· {message.attachments.length} attached</span
									>{/if}</td
							>
							<td>{message.sender}</td>
							<td class="whitespace-nowrap">{moment(message.at, zone)}</td>
						</tr>
					{:else}
						<tr
							><td colspan="4" class="py-8! font-serif text-quiet">No messages{data.to ? ` to ${data.to}` : ''} yet.</td
							></tr
						>
					{/each}
				</tbody>
			</table>
		</div>
		{#if data.messages.length === 50}<p class="pt-3">
				<a class="button" href="?to={encodeURIComponent(data.to)}&before={data.messages[49]?.id}">Older messages</a>
			</p>{/if}
	</section>
	<section class="flex-[1_1_280px]">
		{#if data.clock}
			<h2 class="text-[17px]">Clock</h2>
			<p class="pt-2" data-testid="clock">It is {moment(data.now, zone)}.</p>
			<form method="POST" action="?/clock" use:enhance class="flex flex-wrap gap-2 pt-2">
				<button class="button" name="days" value={1 / 24}>An hour on</button>
				<button class="button" name="days" value="1">A day on</button><button class="button" name="days" value="3"
					>3 days on</button
				><button class="button" name="days" value="14">14 days on</button>
			</form>
			<p class="pt-2 text-[14px] text-quiet">Time goes forward only, since the record does.</p>
		{/if}
		<h2 class="pt-8 text-[17px]">Phone</h2>
		<p class="text-[14px] text-quiet">every text message, kept instead of sent</p>
		<ul aria-label="Text messages">
			{#each data.texts as text (text.id)}
				<li class="border-b border-hairline py-2">
					<p class="text-[14px]">
						<b class="font-mono">{text.recipient}</b> <span class="text-quiet">{moment(text.at, zone)}</span>
					</p>
					<p class="wrap-anywhere">
						{#each text.text.split(/(https?:\S+)/) as part, i (i)}{#if i % 2 === 1}<a
									class="text-thread underline"
									href={part}>{part}</a
								>{:else}{part}{/if}{/each}
					</p>
				</li>
			{:else}<li class="py-3 font-serif text-quiet">No text messages yet.</li>
			{/each}
		</ul>
		<h2 class="pt-8 text-[17px]">Addresses and numbers that refuse</h2>
		<form method="POST" action="?/refuse" use:enhance={keepFilled} class="pt-2">
			<label
				>Messages to these come back<textarea class="input mt-1 h-24 font-mono text-[14px]" name="addresses"
					>{data.refused.join('\n')}</textarea
				></label
			>
			<label class="block pt-2"
				>Text messages to these come back<textarea class="input mt-1 h-16 font-mono text-[14px]" name="numbers"
					>{data.refusedNumbers.join('\n')}</textarea
				></label
			>
			<p class="pt-2"><button class="button">Save</button></p>
		</form>
		{#if data.clock}
			<h2 class="pt-8 text-[17px]">Receiver</h2>
			<p class="text-[14px] text-quiet">
				what other programs are told, told to <span class="font-mono wrap-anywhere">{data.receiver}</span> by whoever
				<a class="text-thread underline" href="/account/programs">has it told</a>
			</p>
			<ul aria-label="What the receiver was told">
				{#each data.received as one (one.id)}
					<li class="border-b border-hairline py-2 text-[14px]">
						<p>
							<span class={one.good ? 'text-moss' : 'text-brick'}
								>{one.good ? 'signed as it must be' : 'not signed by us'}</span
							>
							<span class="text-quiet">{moment(one.at, zone)}</span>
						</p>
						<p class="font-mono wrap-anywhere">{one.body}</p>
					</li>
				{:else}<li class="py-3 font-serif text-quiet">It was told nothing yet.</li>{/each}
			</ul>
		{/if}
		<h2 class="pt-8 text-[17px]">ID desk</h2>
		<p class="text-[14px] text-quiet">
			looks at pictures of documents: reads their machine-readable lines and compares what they say. Faces and forged
			pictures it can’t judge.
		</p>
		<form method="POST" action="?/desk" use:enhance={keepFilled} class="flex flex-wrap items-end gap-2 pt-2">
			<Choice label="It answers" name="mode" value={mode} options={DESK} onchoose={(one) => (mode = one)} />
			<button class="button">Set<span class="unseen"> how the ID desk answers</span></button>
		</form>
		<h2 class="pt-8 text-[17px]">Notary</h2>
		<p class="text-[14px] text-quiet">people with a commission and a key of their own, who notarise in a session</p>
		<p class="flex flex-wrap gap-2 pt-2">
			<a class="button" href="/stand-ins/notary">Notaries, sessions and journals</a>
			<a class="button" href="/stand-ins/witness">Witness of the roots</a>
		</p>
		<h2 class="pt-8 text-[17px]">Time-stamp authority</h2>
		<p class="pt-2 text-[14px]">Answers RFC 3161 requests at <span class="font-mono">/stand-ins/time-stamp</span>.</p>
	</section>
</main>
