<script lang="ts">
	import { showPasskey } from './passkey';

	/** Shows a passkey instead of typing, and goes on where it leads. */
	let { url, to, label = 'Use a passkey' }: { url: string; to: string; label?: string } = $props();
	let busy = $state(false);
	let wrong = $state('');

	async function show() {
		busy = true;
		wrong = '';
		const said = await showPasskey(url, to);
		if ('wrong' in said) {
			wrong = said.wrong;
			busy = false;
		} else location.assign(said.to);
	}
</script>

<button type="button" class="button w-full" disabled={busy} onclick={show}
	>{busy ? 'Waiting for the device …' : label}</button
>
<p class="wrong pt-2 empty:hidden" role="alert">{wrong}</p>
