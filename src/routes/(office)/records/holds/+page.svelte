<script lang="ts">
	import { enhance } from '$app/forms';
	import { untrack } from 'svelte';
	import { moment } from '$lib/ui/dates';
	import SmallForm from '$lib/ui/packet/SmallForm.svelte';
	import OneOf from '$lib/ui/parts/OneOf.svelte';
	import Places from '$lib/ui/records/Places.svelte';

	let { data, form } = $props();
	const zone = $derived(data.organisation.zone);
	const kept = $derived(
		form?.form === 'set' && 'kept' in form ? (form.kept as { name: string; what: string; why: string }) : undefined
	);
	let of = $state<'person' | 'search'>(
		untrack(() =>
			form && 'kept' in form && form.kept && 'of' in form.kept && form.kept.of === 'search' ? 'search' : 'person'
		)
	);
	let lifting = $state('');
	const ON = {
		packets: 'packets that were named',
		person: 'whatever this person takes part in',
		search: 'whatever has these words'
	};
</script>

<svelte:head><title>Holds · Records · Pellum</title></svelte:head>
<main id="main" class="px-6 py-5">
	<div class="flex flex-wrap items-center gap-6 pb-3">
		<h1 class="text-[19px]">Legal holds</h1>
		<Places mayAct={data.mayAct} />
	</div>
	<p class="max-w-2xl pb-3 text-quiet">
		Nothing that a hold is on goes, by whatever rule and whoever says so, until it is lifted. Who set and lifted it,
		when and why, stands in the office’s record.
	</p>
	<div class="flex flex-wrap gap-8">
		<ul class="min-w-0 flex-[3_1_480px]">
			{#each data.holds as hold (hold.id)}
				<li class="border-b border-hairline py-3">
					<div class="flex flex-wrap items-baseline gap-x-4">
						<h2 class="min-w-40 flex-1 text-[16px] {hold.lifted ? 'text-quiet' : ''}">{hold.name}</h2>
						{#if data.mayLift && !hold.lifted && lifting !== hold.id}<button
								class="button"
								onclick={() => (lifting = hold.id)}>Lift…</button
							>{/if}
					</div>
					<p class="wrap-anywhere">
						On {hold.of === 'packets'
							? hold.packets === 1
								? 'one packet'
								: `${hold.packets} packets`
							: ON[hold.of]}{hold.what ? `: ${hold.what}` : ''}
					</p>
					<p class="font-serif wrap-anywhere">{hold.why}</p>
					<p class="text-[14px] text-quiet">
						Set by {hold.by}, {moment(hold.at, zone)}{hold.lifted
							? `. Lifted by ${hold.lifted.by}, ${moment(hold.lifted.at, zone)}: ${hold.lifted.why}`
							: ''}
					</p>
					{#if lifting === hold.id}<SmallForm
							action="?/lift"
							button="Lift it"
							say={form?.form === 'lift' && 'say' in form ? (form.say ?? '') : ''}
							ondone={() => (lifting = '')}
							onleave={() => (lifting = '')}
						>
							<input type="hidden" name="hold" value={hold.id} />
							<label>Why is it lifted?<textarea class="input mt-1 h-16" name="why" required></textarea></label>
						</SmallForm>{/if}
				</li>
			{:else}<li class="max-w-md py-6 font-serif text-quiet">
					No hold has been set. One on certain packets is set in the records: choose them, then “Put…”.
				</li>{/each}
		</ul>
		<form
			method="POST"
			action="?/set"
			class="grid w-full content-start gap-3 min-[900px]:w-[340px]"
			use:enhance={() =>
				({ result, update }) =>
					update({ reset: result.type === 'success' })}
		>
			<h2 class="border-b border-hairline pb-1 text-[16px]">Set a hold</h2>
			<label class="grid gap-1"
				>What it is called<input class="input" name="name" maxlength="120" required value={kept?.name ?? ''} /></label
			>
			<OneOf
				label="On"
				name="of"
				bind:value={of}
				options={[
					['person', 'whatever somebody takes part in'],
					['search', 'whatever has certain words']
				]}
			/>
			<label class="grid gap-1"
				>{of === 'person' ? 'Their e-mail address' : 'The words'}<input
					class="input"
					name="what"
					maxlength="200"
					required
					value={kept?.what ?? ''}
				/></label
			>
			<label class="grid gap-1"
				>Why<textarea class="input h-20" name="why" maxlength="2000" required value={kept?.why ?? ''}></textarea></label
			>
			<p class="{form?.form === 'set' && 'say' in form ? 'wrong' : 'text-moss'} empty:hidden" role="status">
				{form?.form === 'set' ? ('say' in form ? form.say : 'It holds.') : ''}
			</p>
			<p><button class="button primary">Set it</button></p>
		</form>
	</div>
</main>
