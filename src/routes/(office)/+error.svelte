<script lang="ts">
	import NotThere from '$lib/ui/frame/NotThere.svelte';
</script>

<NotThere />
