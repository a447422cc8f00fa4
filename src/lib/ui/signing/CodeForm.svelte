<script lang="ts">
	import type { Kept } from './keeper';
	import { useWords } from './words';

	/** A code is asked for, where it is sent, and entered. */
	let {
		ask,
		enter,
		told = false,
		wide = false,
		onright
	}: {
		/** has a code sent; without it, whoever is here has one already */
		ask?: () => Promise<Kept>;
		enter: (code: string) => Promise<Kept>;
		/** it may have letters too */
		told?: boolean;
		wide?: boolean;
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
		const kept = await ask!();
		busy = false;
		wrong = kept.ok ? '' : kept.say;
		sent ||= kept.ok;
	}
	async function give() {
		busy = true;
		const kept = await enter(code);
		busy = false;
		wrong = kept.ok ? '' : kept.say;
		code = '';
		if (kept.ok) onright();
		else field?.focus();
	}
</script>

{#if ask}
	<p class="pb-4">
		<button type="button" class="button large" disabled={busy} onclick={request}
			>{words()(sent ? 'code.again' : 'code.send')}</button
		>
		<span role="status" class="ps-2 text-[15px] text-quiet">{sent ? words()('code.sent') : ''}</span>
	</p>
{/if}
{#if !ask || sent}
	<form
		class="grid gap-3"
		onsubmit={(event) => {
			event.preventDefault();
			void give();
		}}
	>
		<label
			>{words()('code.code')}<input
				class="input mt-1 min-h-[44px]! text-center font-mono text-[22px] tracking-[0.3em]"
				autocomplete="one-time-code"
				inputmode={told ? 'text' : 'numeric'}
				maxlength="40"
				required
				dir="ltr"
				bind:value={code}
				bind:this={field}
			/></label
		>
		<p class="wrong empty:hidden" role="alert">{wrong}</p>
		<p>
			<button class="button primary large {wide ? 'w-full' : ''}" disabled={busy || code.trim() === ''}
				>{words()('code.go')}</button
			>
		</p>
	</form>
{:else}<p class="wrong empty:hidden" role="alert">{wrong}</p>{/if}
