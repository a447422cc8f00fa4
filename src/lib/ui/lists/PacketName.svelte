<script lang="ts">
	/** A packet in a table: its title, which leads to it, and its reference. */
	let { packet }: { packet: { id: string; title: string; reference: string } } = $props();
</script>

<a href="/packets/{packet.id}" class="font-semibold no-underline hover:underline">{packet.title}</a><br /><span
	class="font-mono text-[13px] text-quiet">{packet.reference}</span
>
