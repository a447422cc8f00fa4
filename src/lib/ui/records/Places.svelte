<script lang="ts">
	import { page } from '$app/state';

	/** The rooms of the records: what has ended, what is put away, what is to go, what is held, what has gone. */
	const PLACES = [
		{ name: 'Records', to: '/records' },
		{ name: 'Archive', to: '/records?put=archive' },
		{ name: 'Bin', to: '/records?put=bin' },
		{ name: 'To go', to: '/records/due', preparers: true },
		{ name: 'Holds', to: '/records/holds', preparers: true },
		{ name: 'Gone', to: '/records/gone', preparers: true }
	];
	let { mayAct }: { mayAct: boolean } = $props();
	const here = $derived.by(() => {
		const put = page.url.pathname === '/records' ? page.url.searchParams.get('put') : null;
		return put ? `/records?put=${put}` : page.url.pathname;
	});
</script>

<nav aria-label="Rooms of the records" class="flex flex-wrap gap-2">
	{#each PLACES.filter((place) => mayAct || !place.preparers) as place (place.to)}<a
			class="chip"
			href={place.to}
			aria-current={here === place.to}>{place.name}</a
		>{/each}
</nav>
