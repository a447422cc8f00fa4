<script lang="ts">
	import VisitFrame from '$lib/ui/visit/VisitFrame.svelte';
	import Visitor from '$lib/ui/visit/Visitor.svelte';

	let { data } = $props();
</script>

<VisitFrame
	base="/i/{data.slug}"
	heading={data.view.heading}
	{...data.organisation}
	language={data.language}
	direction={data.direction}
	texts={data.texts}
	languages={data.languages}
>
	<Visitor view={data.view} slug={data.slug} token={data.token} accessKey={data.key} />
</VisitFrame>
