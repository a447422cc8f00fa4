<script lang="ts">
	import { tell } from '../parts/told';
	import type { Making } from './making.svelte';

	/** How people come to the page: a link, a QR code, or within a page of the office's website. */
	let { making, address, code }: { making: Making; address: string; code: string } = $props();

	const snippet = $derived(
		`<iframe src="${address}" title="${making.setting.heading.replaceAll('"', '&quot;')}" style="width:100%;border:0" height="600"></iframe>\n<script src="${new URL('/frame.js', address).href}"></` +
			'script>'
	);
	const ORIGIN = /^https?:\/\/[A-Za-z0-9.-]+(:\d{1,5})?$/;
	/** what was written and is no origin */
	let strange = $state('');
	function setFrames(text: string) {
		const lines = text
			.split(/\s+/)
			.filter(Boolean)
			.map((one) => one.replace(/\/+$/, ''));
		const odd = lines.find((one) => !ORIGIN.test(one));
		strange = odd
			? `“${odd}” is no origin: it begins with https:// and ends with the name of the website, without a path.`
			: '';
		if (!odd) making.set({ frames: lines.slice(0, 20) });
	}
	async function copy(text: string, what: string) {
		await navigator.clipboard.writeText(text);
		tell(`${what} copied`);
	}
</script>

<div class="grid max-w-2xl gap-6">
	<section class="grid gap-2" aria-labelledby="link">
		<h2 id="link" class="text-[16px]">Link</h2>
		<p class="flex flex-wrap items-center gap-3">
			<a class="min-w-0 font-mono text-[13px] break-all text-thread underline" href={address} target="_blank"
				>{address}</a
			>
			<button type="button" class="button" onclick={() => copy(address, 'Link')}>Copy</button>
		</p>
		<p class="text-[13px] text-quiet">
			What is known before may stand behind it by its key, as in <span class="font-mono">#county=brint</span>; what
			stands there is never sent to a server.
		</p>
	</section>
	<section class="grid gap-2" aria-labelledby="qr">
		<h2 id="qr" class="text-[16px]">QR code</h2>
		<div class="flex flex-wrap items-center gap-5">
			<img src="data:image/svg+xml,{encodeURIComponent(code)}" alt="QR code of the link" width="140" height="140" />
			<p class="flex gap-3">
				<a class="button" href="/intakes/{making.id}/code?as=svg" download>SVG</a>
				<a class="button" href="/intakes/{making.id}/code?as=png" download>PNG</a>
			</p>
		</div>
	</section>
	<section class="grid gap-2" aria-labelledby="frame">
		<h2 id="frame" class="text-[16px]">Within a page of yours</h2>
		<label
			>Origins that may show it, a line each<textarea
				class="input mt-1 h-16 font-mono text-[13px]"
				placeholder="https://www.brindlevale.example"
				value={making.setting.frames.join('\n')}
				onchange={(event) => setFrames(event.currentTarget.value)}></textarea></label
		>
		<p class="wrong empty:hidden" role="alert">{strange}</p>
		{#if making.setting.frames.length > 0}
			<pre
				class="border border-hairline bg-sheet p-3 text-[12px] leading-5 break-all whitespace-pre-wrap">{snippet}</pre>
			<p><button type="button" class="button" onclick={() => copy(snippet, 'Snippet')}>Copy</button></p>
			<p class="text-[13px] text-quiet">
				The page around it is told when somebody starts and hands in; see docs/intake.md. Nobody else’s page can show
				it.
			</p>
		{:else}<p class="text-[13px] text-quiet">As long as none stands here, no other page can show it in a frame.</p>{/if}
	</section>
</div>
