<script lang="ts">
	import type { WordingRequest } from '../../core/packet';
	import { day } from '../dates';
	import { saidTo, type Answered } from './form';
	import SmallForm from './SmallForm.svelte';

	type Wish = WordingRequest & { name: string };
	/** Wishes for another wording: answered here, or by a new version. */
	let {
		wishes,
		zone,
		now,
		mayAct,
		answered,
		onversion
	}: {
		wishes: Wish[];
		zone: string;
		now: string;
		mayAct: boolean;
		answered: Answered | null;
		onversion: () => void;
	} = $props();
</script>

<h2 class="text-[16px]">Another wording wanted</h2>
<ul class="pb-5">
	{#each wishes as wish (wish.id)}
		<li class="border-b border-hairline py-2">
			<p><b>{wish.name}</b> <span class="text-quiet">page {wish.page + 1}, {day(wish.at, zone, now)}</span></p>
			<p><del class="decoration-brick">{wish.words}</del></p>
			{#if wish.instead}<p><ins class="decoration-moss">{wish.instead}</ins></p>{/if}
			{#if wish.why}<p class="text-quiet">{wish.why}</p>{/if}
			{#if wish.answer !== null}<p class="text-[14px]">You answered: {wish.answer}</p>
			{:else if mayAct}
				<SmallForm
					action="?/wording"
					button="Answer"
					say={answered?.kept?.['wish'] === wish.id ? saidTo(answered, 'wording') : ''}
				>
					<input type="hidden" name="wish" value={wish.id} />
					<label
						>Your answer<textarea class="input mt-1 h-16" name="say" maxlength="2000" required
							>{answered?.kept?.['wish'] === wish.id ? answered.kept['say'] : ''}</textarea
						></label
					>
				</SmallForm>
				<button class="plain -ml-1" onclick={onversion}>Withdraw, and make a new version…</button>
			{/if}
		</li>
	{/each}
</ul>
