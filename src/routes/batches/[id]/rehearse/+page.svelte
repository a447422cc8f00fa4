<script lang="ts">
	import { Turn } from '$lib/ui/bench/rehearsal';

	let { data } = $props();
</script>

<Turn rehearsal={data.rehearsal} {data} />
