<script lang="ts">
	import { FLOATS } from './over';
	import { Command, Dialog } from 'bits-ui';

	/** One field over the page that finds and does: what is typed is asked, what is found is walked by arrows and taken by Enter. */
	let {
		open = $bindable(false),
		words = $bindable(''),
		label,
		placeholder,
		rows,
		none,
		onask
	}: {
		open?: boolean;
		words?: string;
		label: string;
		placeholder: string;
		rows: { key: string; name: string; note: string; run: () => unknown }[];
		/** what stands there while nothing is found */
		none: string;
		onask: () => void;
	} = $props();
</script>

<Dialog.Root bind:open onOpenChange={() => (words = '')}>
	<Dialog.Portal>
		<Dialog.Overlay class="fixed inset-0 z-40 bg-ink/30" />
		<Dialog.Content class="fixed top-24 left-1/2 z-50 w-[560px] max-w-[94vw] -translate-x-1/2 {FLOATS}">
			<Dialog.Title class="unseen">{label}</Dialog.Title>
			<Command.Root shouldFilter={false} loop {label}>
				<Command.Input
					class="h-12 w-full border-b border-hairline bg-transparent px-4 text-[17px]"
					{placeholder}
					aria-label={label}
					bind:value={words}
					oninput={onask}
				/>
				<Command.List aria-label="Found" class="max-h-80 overflow-y-auto py-1">
					<Command.Viewport>
						{#each rows as row (row.key)}
							<Command.Item
								value={row.key}
								onSelect={() => {
									open = false;
									row.run();
								}}
								class="cursor-pointer px-4 py-1.5 data-selected:bg-wash"
							>
								<span class="font-semibold">{row.name}</span>
								{#if row.note}<span class="block text-[13px] text-quiet">{row.note}</span>{/if}
							</Command.Item>
						{:else}<p class="px-4 py-2 text-quiet" role="status">{none}</p>{/each}
					</Command.Viewport>
				</Command.List>
			</Command.Root>
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>
