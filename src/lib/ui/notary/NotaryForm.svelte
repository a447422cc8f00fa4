<script lang="ts">
	import { untrack } from 'svelte';
	import { ACT_KINDS, ACTS, type CommissionGiven } from '../../core/notary';
	import Check from '../parts/Check.svelte';
	import Day from '../parts/Day.svelte';
	import Pick from '../parts/Pick.svelte';

	/** A notary's commission: who, where, until when, which hours, what each act costs. */
	let { given, zone, zones }: { given: CommissionGiven | null; zone: string; zones: string[] } = $props();

	const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
	const hours = $derived(given?.hours ?? { days: [1, 2, 3, 4, 5], from: '09:00', to: '17:00' });
	let chosenZone = $state(untrack(() => given?.zone ?? zone));
	const FIELDS = [
		['name', 'Name', 120],
		['email', 'E-mail', 254],
		['number', 'Number of the commission', 60],
		['jurisdiction', 'Jurisdiction', 120],
		['venue', 'Where the acts are done', 120]
	] as const;
</script>

<div class="grid gap-3">
	{#each FIELDS as [name, label, most] (name)}
		<label>{label}<input class="input mt-1" {name} maxlength={most} required value={given?.[name] ?? ''} /></label>
	{/each}
	<div class="flex flex-wrap gap-3">
		<Day label="Commission from" name="from" required value={given?.from ?? ''} />
		<Day label="until" name="until" required value={given?.until ?? ''} />
	</div>
	<fieldset>
		<legend class="pb-1">Hours</legend>
		<div class="flex flex-wrap gap-x-4 gap-y-2">
			{#each DAYS as day, i (day)}
				<Check label={day} name="day{i + 1}" checked={hours.days.includes(i + 1)} />
			{/each}
		</div>
		<div class="flex flex-wrap gap-3 pt-2">
			<label
				>from<input
					class="input mt-1 block w-28!"
					name="opens"
					pattern="[0-2][0-9]:[0-5][0-9]"
					required
					value={hours.from}
				/></label
			>
			<label
				>to<input
					class="input mt-1 block w-28!"
					name="closes"
					pattern="[0-2][0-9]:[0-5][0-9]"
					required
					value={hours.to}
				/></label
			>
		</div>
	</fieldset>
	<Pick
		label="Time zone"
		name="zone"
		value={chosenZone}
		options={zones.map((one): [string, string] => [one, one.replaceAll('_', ' ')])}
		onchoose={(one) => (chosenZone = one)}
	/>
	<fieldset>
		<legend class="pb-1"
			>Fees <span class="text-quiet">shown beforehand and in the record; nothing is paid here</span></legend
		>
		<div class="grid gap-2">
			{#each ACT_KINDS as kind (kind)}
				<label
					>{kind} <span class="text-quiet">{ACTS[kind].about}</span><input
						class="input mt-1 block w-40!"
						name="fee {kind}"
						maxlength="40"
						value={given?.fees[kind] ?? ''}
					/></label
				>
			{/each}
		</div>
	</fieldset>
</div>
