<script lang="ts">
	let { data } = $props();
</script>

<svelte:head><title>Outside · Settings · Pellum</title></svelte:head>
<main id="main" class="mx-auto max-w-5xl px-6 py-6">
	<div class="max-w-xl">
		<h1 class="border-b border-hairline pb-2 text-[19px]">Outside</h1>
		<p class="pt-3">Mail goes to {data.mail}, text messages to the Phone stand-in.</p>
		<p class="pt-2">
			<a class="text-thread underline" href="/calendar" download>Deadlines and terms as a calendar file</a>
		</p>
		<p class="pt-2">Whoever checks a sealed copy trusts these certificates:</p>
		<ul class="list-inside list-disc pt-1">
			{#each data.roots as root (root)}<li>
					<a class="inline-block py-0.5 font-mono text-[14px] text-thread underline" href="/settings/trust/{root}"
						>{root}</a
					>
				</li>{/each}
		</ul>
	</div>
</main>
