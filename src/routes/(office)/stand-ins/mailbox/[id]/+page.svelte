<script lang="ts">
	import { moment } from '$lib/ui/dates';

	let { data } = $props();
</script>

<svelte:head><title>{data.message.subject} · Pellum</title></svelte:head>
<main id="main" class="mx-auto max-w-3xl px-6 py-6">
	<p class="pb-3"><a class="text-thread underline" href="/stand-ins">Mailbox</a></p>
	<h1 class="text-xl">{data.message.subject}</h1>
	<p class="pb-1 text-quiet">
		to {data.message.recipient} · from {data.message.sender} · {moment(data.message.at, data.organisation.zone)}
	</p>
	{#if data.message.attachments.length > 0}<p class="pb-1 text-quiet">
			attached: {data.message.attachments.map((a) => a.name).join(', ')}
		</p>{/if}
	{#if data.link}<p class="py-2"><a class="button primary" href={data.link}>Open the link in it</a></p>{/if}
	<iframe
		title="The message"
		src="/stand-ins/mailbox/{data.message.id}/letter"
		class="my-3 h-96 w-full border border-hairline bg-white"
		sandbox="allow-popups allow-popups-to-escape-sandbox allow-top-navigation-by-user-activation"
	></iframe>
	<h2 class="pt-2 text-[16px]">As text</h2>
	<pre
		class="overflow-x-auto rounded-sm border border-hairline bg-linen p-3 font-mono text-[13px] whitespace-pre-wrap">{data
			.message.text}</pre>
</main>
