<script lang="ts">
	import { page } from '$app/state';
	import { Turn } from '$lib/ui/bench/rehearsal';

	let { data } = $props();
</script>

<Turn rehearsal={page.params.id!} {data} />
