<script lang="ts">
	import { enhance } from '$app/forms';
	import { untrack } from 'svelte';
	import { keepFilled } from '$lib/ui/forms';
	import OneOf from '$lib/ui/parts/OneOf.svelte';

	let { data, form } = $props();
	let by = $state<string>(untrack(() => form?.kept?.by ?? data.witness.by));
</script>

<svelte:head><title>Outside · Settings · Pellum</title></svelte:head>
<main id="main" class="mx-auto max-w-5xl px-6 py-6">
	<div class="max-w-xl">
		<h1 class="border-b border-hairline pb-2 text-[19px]">Outside</h1>
		<p class="pt-3">Mail goes to {data.mail}, text messages to the Phone stand-in.</p>
		<p class="pt-2">
			<a class="text-thread underline" href="/calendar" download>Deadlines and terms as a calendar file</a>
		</p>
		<p class="pt-2">Whoever checks a sealed copy trusts these certificates:</p>
		<ul class="list-inside list-disc pt-1">
			{#each data.roots as root (root)}<li>
					<a class="inline-block py-0.5 font-mono text-[14px] text-thread underline" href="/settings/trust/{root}"
						>{root}</a
					>
				</li>{/each}
		</ul>
		<h2 class="border-b border-hairline pt-8 pb-1 text-[17px]">A witness of the record</h2>
		<p class="py-2 text-quiet">
			Each day one number is signed that stands for everything that has happened. Who keeps it elsewhere can tell when
			the past was rewritten, whoever did it. Anybody can fetch it under <a class="text-thread underline" href="/verify"
				>Verify</a
			>.
		</p>
		<form method="POST" action="?/witness" class="grid gap-3" use:enhance={keepFilled}>
			<fieldset class="grid gap-3" disabled={!data.owner}>
				<OneOf
					label="Who is sent it"
					name="by"
					bind:value={by}
					options={[
						['nobody', 'nobody'],
						['mail', 'somebody, by mail'],
						['program', 'a program, at its address'],
						['stand-in', 'the stand-in']
					]}
					disabled={!data.owner}
				/>
				{#if by === 'mail' || by === 'program'}<label class="grid gap-1"
						>{by === 'mail' ? 'Their e-mail address' : 'Its address, https://…'}<input
							class="input"
							type={by === 'mail' ? 'email' : 'url'}
							name="address"
							maxlength="254"
							required
							value={form?.kept?.address ?? data.witness.address}
						/></label
					>{/if}
			</fieldset>
			<p class="{form && 'say' in form ? 'wrong' : 'text-moss'} empty:hidden" role="status">
				{form && 'say' in form ? form.say : form ? 'Saved.' : ''}
			</p>
			{#if data.owner}<p><button class="button primary">Save</button></p>{/if}
		</form>
	</div>
</main>
