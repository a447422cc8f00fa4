<script lang="ts">
	import { send } from '../signing/keeper';
	import { useWords } from '../signing/words';

	/** A code goes to the visitor's address and is entered here; from then on what they enter is kept on the server too. */
	let {
		base,
		name,
		email,
		onright
	}: {
		/** `/i/SLUG/TOKEN` */
		base: string;
		name: string;
		email: string;
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
		const kept = await send(`${base}/code`, 'PUT', { name, email, language: words().language }, words());
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

<section aria-labelledby="confirm" class="rounded-sm border border-hairline bg-sheet p-4">
	<h3 id="confirm" class="pb-1 text-[17px]">{words()('intake.confirm')}</h3>
	<p class="pb-3">{words()('intake.confirm text', { to: email })}</p>
	<p class="pb-3">
		<button type="button" class="button large" disabled={busy} onclick={request}
			>{words()(sent ? 'code.again' : 'code.send')}</button
		>
		<span role="status" class="ps-2 text-[15px] text-quiet">{sent ? words()('code.sent') : ''}</span>
	</p>
	{#if sent}
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
					inputmode="numeric"
					maxlength="40"
					required
					dir="ltr"
					bind:value={code}
					bind:this={field}
				/></label
			>
			<p><button class="button primary large" disabled={busy || code.trim() === ''}>{words()('code.go')}</button></p>
		</form>
	{/if}
	<p class="wrong empty:hidden" role="alert">{wrong}</p>
</section>
