<script lang="ts">
	import Files from '$lib/ui/parts/Files.svelte';
	import More from '$lib/ui/parts/More.svelte';

	let { data } = $props();
</script>

<svelte:head><title>Verify a sealed copy · Pellum</title></svelte:head>
<main id="main" class="mx-auto max-w-2xl px-6 py-10">
	<h1 class="text-[22px]">Verify a sealed copy</h1>
	<p class="py-2 text-quiet">
		Whether a file is a copy that {data.office} has sealed, unchanged since, and when. For anybody who has it: nothing of
		the file is kept, and nobody is told.
	</p>
	<form method="POST" action="/verify/page" enctype="multipart/form-data" class="grid gap-4 py-3">
		<Files label="The file" takes="a PDF, up to 50 MB" accept="application/pdf,.pdf" name="file" required />
		<More label="Hold it against a root that you have kept">
			<div class="grid gap-2 py-2">
				<p class="text-[14px] text-quiet">
					A root is a small file with the one number that stands for everything that had happened by its day. Who has
					kept one can tell that nothing before it was changed.
				</p>
				<Files label="The root" takes="a JSON file" accept="application/json,.json" name="root" />
			</div>
		</More>
		<p><button class="button primary">Judge it</button></p>
	</form>
	<section aria-labelledby="roots" class="pt-6">
		<h2 id="roots" class="border-b border-hairline pb-1 text-[17px]">Roots to keep</h2>
		{#if data.days.length > 0}
			<ul class="flex flex-wrap gap-2 pt-3">
				{#each data.days as day (day)}<li><a class="button" href="/verify/root?day={day}" download>{day}</a></li>{/each}
			</ul>
		{:else}<p class="pt-2 text-quiet">None has been kept yet; one is each day.</p>{/if}
	</section>
	{#if data.signedIn}<p class="pt-8"><a class="text-thread underline" href="/records">Back to the records</a></p>{/if}
</main>
