<script lang="ts">
	import { Toaster } from 'svelte-sonner';

	/** Where it is said what has happened: once a page, at the bottom. */
</script>

<Toaster
	position="bottom-center"
	toastOptions={{
		unstyled: true,
		classes: {
			toast:
				'flex w-fit max-w-[92vw] items-center gap-4 rounded-sm border border-line bg-ink px-4 py-2 text-[15px] text-sheet shadow-(--float)',
			actionButton: 'cursor-pointer rounded-sm border border-current px-2 py-0.5 font-semibold'
		}
	}}
/>
