<script lang="ts">
	import { FILE_TYPES, MOST_MEGABYTES } from '../../../../core/field';
	import Check from '../../../parts/Check.svelte';
	import Whole from '../Whole.svelte';
	import type { Settings } from '../settings.svelte';

	/** Which files, and how large. */
	let { settings }: { settings: Settings } = $props();

	function type(name: string, on: boolean) {
		const have = settings.text('types', Object.keys(FILE_TYPES).join(',')).split(',');
		const next = Object.keys(FILE_TYPES).filter((t) => (t === name ? on : have.includes(t)));
		if (next.length > 0)
			settings.set('types', next.length === Object.keys(FILE_TYPES).length ? undefined : next.join(','));
	}
</script>

<fieldset>
	<legend>Takes</legend>
	<p class="flex flex-wrap gap-3 pt-1">
		{#each Object.keys(FILE_TYPES) as name (name)}<Check
				label={name.toUpperCase()}
				checked={settings.text('types', name).split(',').includes(name)}
				onchange={(on) => type(name, on)}
			/>{/each}
	</p>
</fieldset>
<Whole {settings} name="megabytes" label={`Megabytes at most (${MOST_MEGABYTES})`} least={1} most={MOST_MEGABYTES} />
