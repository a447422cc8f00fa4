<script lang="ts">
	import type { FoundPiece } from '../../core/found';

	/** Where the words that were searched for stand: a piece of a document's page, or of an answer. */
	let { found }: { found: FoundPiece & { paper: string | null; page: number | null } } = $props();
</script>

<p class="max-w-xl pt-1 text-[14px] leading-5">
	<span class="text-quiet">{found.paper === null ? 'Answer' : `${found.paper}, page ${(found.page ?? 0) + 1}`}:</span>
	<bdi>{found.before} <mark class="bg-wash font-semibold text-ink">{found.word}</mark> {found.after}</bdi>
</p>
