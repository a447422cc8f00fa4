<script lang="ts">
	import { send } from './keeper';
	import { useWords } from './words';

	/** Before anything is shown: a code, which the sender has told, or which comes by mail or text message. */
	let {
		base,
		by,
		to,
		minutes,
		onright
	}: {
		base: string;
		by: 'code' | 'mail' | 'text';
		/** where the code goes, mostly hidden */
		to: string;
		minutes: number;
		onright: () => void;
	} = $props();

	const words = useWords();
	let code = $state('');
	let busy = $state(false);
	let sent = $state(false);
	let wrong = $state('');
	let field = $state<HTMLInputElement>();

	async function request() {
		busy = true;
		const kept = await send(`${base}/code`, 'PUT', {}, words());
		busy = false;
		wrong = kept.ok ? '' : kept.say;
		sent ||= kept.ok;
	}
	async function enter() {
		busy = true;
		const kept = await send(`${base}/code`, 'POST', { code }, words());
		busy = false;
		wrong = kept.ok ? '' : kept.say;
		code = '';
		if (kept.ok) onright();
		else field?.focus();
	}
</script>

<main id="main" class="mx-auto max-w-md px-5 py-10 text-[17px] leading-7">
	<h2 class="pb-2 text-xl">{words()('code.title')}</h2>
	<p class="pb-4">
		{by === 'code' ? words()('code.by code') : words()(`code.by ${by}`, { to, minutes })}
	</p>
	{#if by !== 'code'}
		<p class="pb-4">
			<button class="button large" disabled={busy} onclick={request}
				>{words()(sent ? 'code.again' : 'code.send')}</button
			>
			<span role="status" class="ps-2 text-[15px] text-quiet">{sent ? words()('code.sent') : ''}</span>
		</p>
	{/if}
	{#if by === 'code' || sent}
		<form
			class="grid gap-3"
			onsubmit={(event) => {
				event.preventDefault();
				void enter();
			}}
		>
			<label
				>{words()('code.code')}<input
					class="input mt-1 min-h-[44px]! text-center font-mono text-[22px] tracking-[0.3em]"
					autocomplete="one-time-code"
					inputmode={by === 'code' ? 'text' : 'numeric'}
					maxlength="40"
					required
					dir="ltr"
					bind:value={code}
					bind:this={field}
				/></label
			>
			<p class="wrong empty:hidden" role="alert">{wrong}</p>
			<p>
				<button class="button primary large w-full" disabled={busy || code.trim() === ''}>{words()('code.go')}</button>
			</p>
		</form>
	{:else}<p class="wrong empty:hidden" role="alert">{wrong}</p>{/if}
</main>
