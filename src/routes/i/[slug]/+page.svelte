<script lang="ts">
	import VisitRoute from '$lib/ui/visit/VisitRoute.svelte';

	let { data } = $props();
</script>

<VisitRoute {data} />
