<script lang="ts">
	import { moment } from '$lib/ui/dates';

	let { data } = $props();
	const zone = $derived(data.organisation.zone);
</script>

<svelte:head><title>Witness · Stand-ins · Pellum</title></svelte:head>
<main id="main" class="px-6 py-5">
	<h1 class="text-[19px]">
		Witness <span class="text-[14px] font-normal text-quiet">keeps each day’s root, elsewhere</span>
	</h1>
	<p class="max-w-2xl py-2 text-quiet">
		Somebody outside who is sent one number a day that stands for everything that has happened. This one looks whether
		each goes on from the one before, by the proof that comes with it, without asking this Pellum anything.{data.by ===
		'stand-in'
			? ''
			: ' At present the roots go elsewhere; see Settings, Outside.'}
	</p>
	<div class="overflow-x-auto">
		<table class="list">
			<thead
				><tr><th>Day</th><th>Events</th><th>Root, SHA-256</th><th>Goes on from the one before</th><th>Came</th></tr
				></thead
			>
			<tbody>
				{#each data.roots as root (root.day)}
					<tr>
						<td class="whitespace-nowrap">{root.day}</td>
						<td>{root.size}</td>
						<td class="font-mono text-[13px] break-all">{root.root}</td>
						<td class={root.follows ? 'text-moss' : 'font-semibold text-brick'}
							>{root.follows ? 'yes' : 'No: the past was rewritten, or an end cut off'}</td
						>
						<td class="whitespace-nowrap">{moment(root.at, zone)}</td>
					</tr>
				{:else}<tr
						><td colspan="5" class="py-6 font-serif text-quiet">No root has come yet. One is sent each day.</td></tr
					>{/each}
			</tbody>
		</table>
	</div>
</main>
