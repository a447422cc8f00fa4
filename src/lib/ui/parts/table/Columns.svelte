<script lang="ts" generics="Row">
	import Check from '../Check.svelte';
	import Over from '../Over.svelte';
	import type { Column } from './columns';

	/** Which columns are shown. */
	let { columns, hidden, onhide }: { columns: Column<Row>[]; hidden: string[]; onhide: (hidden: string[]) => void } =
		$props();
</script>

<Over label="Columns" look="plain text-[14px]">
	<ul class="grid gap-1">
		{#each columns as column (column.key)}
			<li>
				<Check
					label={column.name}
					checked={!hidden.includes(column.key)}
					disabled={column.fixed}
					onchange={(now) => onhide(now ? hidden.filter((one) => one !== column.key) : [...hidden, column.key])}
				/>
			</li>
		{/each}
	</ul>
</Over>
