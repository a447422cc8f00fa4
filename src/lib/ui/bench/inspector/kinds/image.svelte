<script lang="ts">
	import Files from '../../../parts/Files.svelte';
	import { upload } from '../../../signing/keeper';
	import type { Settings } from '../settings.svelte';

	/** The picture that is printed. */
	let { settings }: { settings: Settings } = $props();

	let busy = $state('');
	let wrong = $state('');

	async function picture([file]: File[]) {
		if (!file) return;
		[busy, wrong] = ['Taking it in…', ''];
		const got = await upload<{ digest: string }>(`/bench/${settings.bench.id}/files`, file);
		busy = '';
		if (typeof got === 'string') wrong = `${got} Everything else is kept.`;
		else settings.set('picture', got.digest);
	}
</script>

<div>
	<p class="pb-1">{settings.get('picture') ? 'Another picture' : 'Picture'}</p>
	<Files
		label={settings.get('picture') ? 'Another picture' : 'Picture'}
		takes="PNG or JPEG; white becomes clear"
		accept="image/png,image/jpeg"
		{busy}
		onfiles={picture}
	/>
	<p class="wrong empty:hidden" role="alert">{wrong}</p>
</div>
