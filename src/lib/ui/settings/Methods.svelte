<script lang="ts">
	import { enhance } from '$app/forms';
	import Choice from '../parts/Choice.svelte';
	import Day from '../parts/Day.svelte';
	import { keepFilled } from '../forms';

	/** The methods that seals and time-stamps rest on, and from when on one is not relied on any more. */
	let {
		methods,
		wrong,
		done
	}: { methods: { id: string; name: string; from: string | null }[]; wrong: string; done: boolean } = $props();

	let method = $state('sha256');
	const now = $derived(methods.find(({ id }) => id === method));
</script>

<section aria-labelledby="methods" class="max-w-2xl pt-8">
	<h2 id="methods" class="border-b border-hairline pb-1 text-[17px]">What they rest on</h2>
	<ul class="py-2">
		{#each methods as one (one.id)}
			<li><b>{one.name}</b>: {one.from ? `not relied on from ${one.from.slice(0, 10)} on` : 'relied on'}</li>
		{/each}
	</ul>
	<p class="pb-3 text-[14px] text-quiet">
		When a method is no longer safe, say from when on: new keys are of another one, and every copy that rests on it gets
		another time-stamp before that day.
	</p>
	<form method="POST" action="?/method" class="grid gap-3" use:enhance={keepFilled}>
		<div class="flex flex-wrap gap-4">
			<Choice
				label="Method"
				name="method"
				value={method}
				options={methods.map(({ id, name }) => [id, name] as const)}
				onchoose={(to) => (method = to)}
			/>
			<Day label="Not relied on from" name="from" value={now?.from?.slice(0, 10) ?? ''} />
		</div>
		<label>Why<input class="input mt-1" name="why" maxlength="200" required /></label>
		<p class="{wrong ? 'wrong' : 'text-moss'} empty:hidden" role="status">
			{wrong || (done ? 'Kept. What rests on it is stamped again by itself.' : '')}
		</p>
		<p class="text-[14px] text-quiet">Without a day it is relied on again.</p>
		<p><button class="button">Keep it so</button></p>
	</form>
</section>
