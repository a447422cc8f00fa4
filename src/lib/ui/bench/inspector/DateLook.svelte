<script lang="ts">
	import { DATE_FORMATS, dayShown } from '../../../core/field';
	import { localeOf } from '../../../core/packet';
	import Choice from '../../parts/Choice.svelte';
	import type { Settings } from './settings.svelte';

	/** How a day is written. */
	let { settings }: { settings: Settings } = $props();
</script>

<Choice
	label="Written"
	value={settings.text('format', 'long')}
	options={DATE_FORMATS.map((format) => [format, dayShown('2026-12-02', format, localeOf(settings.bench.plan))])}
	onchoose={(format) => settings.set('format', format)}
/>
