<script lang="ts">
	import type { Field } from '../../core/packet';
	import { toShown, type PageSize } from '../../core/page';

	/** Paper over the markers that became fields, as it will be on the sealed copy. */
	let { fields, page, scale }: { fields: Field[]; page: PageSize; scale: number } = $props();
</script>

{#each fields as field (field.id)}
	{#if field.cover}
		{@const at = toShown(page, field.cover)}
		<span
			class="pointer-events-none absolute bg-white"
			style="left:{at.left * scale}px;top:{at.top * scale}px;width:{at.width * scale}px;height:{at.height * scale}px"
		></span>
	{/if}
{/each}
