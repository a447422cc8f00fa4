<script lang="ts">
	import type { Intake } from '../../core/intake';
	import Check from '../parts/Check.svelte';
	import Choice from '../parts/Choice.svelte';
	import Faults from './Faults.svelte';
	import type { Making } from './making.svelte';

	/** The page itself: what visitors read first, from which version of the template, and whether all is asked at once. */
	let {
		making,
		versions
	}: {
		making: Making;
		/** of the template, the newest first */
		versions: { version: number; day: string; note: string }[];
	} = $props();

	const setting = $derived(making.setting);
</script>

<section class="grid gap-3" aria-labelledby="about">
	<h2 id="about" class="text-[16px]">The page</h2>
	<label
		>Heading<input
			class="input mt-1"
			maxlength="120"
			value={setting.heading}
			oninput={(event) => making.set({ heading: event.currentTarget.value })}
		/></label
	>
	<label
		>What visitors read first<textarea
			class="input mt-1 h-24"
			maxlength="4000"
			value={setting.text}
			oninput={(event) => making.set({ text: event.currentTarget.value })}></textarea></label
	>
	<Choice
		label="Version of the template"
		value={String(setting.version ?? '')}
		options={[
			['', 'always the one in use'],
			...versions.map(({ version, day, note }): [string, string] => [
				String(version),
				`${version}, of ${day}${note && `: ${note}`}`
			])
		]}
		onchoose={(version) => making.set({ version: Number(version) || undefined } as Partial<Intake>)}
	/>
	<Check
		label="All questions on one page, since they are few"
		checked={setting.together === true}
		onchange={(together) => making.set({ together: together || undefined } as Partial<Intake>)}
	/>
	<Faults {making} at="heading" />
</section>
