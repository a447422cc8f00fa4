<script lang="ts">
	let { data } = $props();
</script>

<svelte:head><title>About · Settings · Pellum</title></svelte:head>
<main id="main" class="mx-auto max-w-5xl px-6 py-6">
	<h1 class="border-b border-hairline pb-2 text-[19px]">About this Pellum</h1>
	<p class="pt-3">Version {data.version}.</p>
	<h2 class="pt-6 pb-1 text-[16px]">What ships with it, and under which licence</h2>
	<p class="pb-3 text-[14px] text-quiet">
		Programs, fonts and data by others, with thanks. The texts of the licences lie with each in the folder of packages.
	</p>
	<div class="overflow-x-auto">
		<table class="list">
			<thead><tr><th>What</th><th>Version</th><th>Licence</th></tr></thead>
			<tbody>
				{#each data.parts as part (`${part.name} ${part.version}`)}
					<tr
						><td class="wrap-anywhere">{part.name}</td><td class="font-mono">{part.version}</td><td>{part.licence}</td
						></tr
					>
				{/each}
			</tbody>
		</table>
	</div>
</main>
