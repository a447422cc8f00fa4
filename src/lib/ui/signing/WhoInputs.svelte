<script lang="ts">
	/** Name and address of somebody whom this person names or hands over to. */
	let {
		who = $bindable(),
		nameLabel,
		emailLabel
	}: { who: { name: string; email: string }; nameLabel: string; emailLabel: string } = $props();
</script>

<label
	>{nameLabel}<input class="input mt-1 min-h-[44px]!" maxlength="200" autocomplete="off" bind:value={who.name} /></label
>
<label
	>{emailLabel}<input
		class="input mt-1 min-h-[44px]!"
		type="email"
		maxlength="254"
		autocomplete="off"
		dir="ltr"
		bind:value={who.email}
	/></label
>
