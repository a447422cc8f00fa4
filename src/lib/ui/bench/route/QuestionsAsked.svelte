<script lang="ts">
	import { MOST, type IdentityAsked } from '../../../core/identity/asked';
	import { freshId } from '../../../core/plan';
	import Choice from '../../parts/Choice.svelte';
	import Day from '../../parts/Day.svelte';
	import { post } from '../../post';

	/** What the office knows of somebody, and asks of them: questions, each with the answer that theirs is compared with. */
	type Questions = NonNullable<IdentityAsked['questions']>;
	let {
		asTemplate,
		questions,
		onchange
	}: {
		/** nobody is known yet: the answers are given when it is used */
		asTemplate: boolean;
		questions: Questions;
		onchange: (questions: Questions) => void;
	} = $props();

	let question = $state('');
	let answer = $state('');
	let as = $state<'text' | 'number' | 'date'>('text');
	let say = $state('');

	/** The plan keeps an answer only as a salted hash, which the server makes. */
	async function add() {
		if (asTemplate) return put('');
		const done = await post<{ hash: string }>(
			'/bench/code',
			{ answer: answer.trim(), as },
			'It is not added; what you typed is still here.'
		);
		if ('wrong' in done) return void (say = done.wrong);
		put(done.hash);
		say = 'Added. The answer can’t be looked up here again.';
	}
	function put(hash: string) {
		const asks = questions.asks;
		// one that a template brought has its answer still to come
		const there = asks.find((one) => one.hash === '' && one.ask === question.trim());
		const next = there
			? asks.map((one) => (one === there ? { ...one, as, hash } : one))
			: [...asks, { id: freshId('q'), ask: question.trim(), as, hash }];
		onchange({ asks: next, right: questions.right });
		question = '';
		answer = '';
	}
	const numbers = (most: number) => Array.from({ length: most }, (_, i): [string, string] => [`${i + 1}`, `${i + 1}`]);
</script>

<div class="grid gap-2 border-s border-hairline ps-3">
	<ul class="grid gap-1">
		{#each questions.asks as one (one.id)}
			<li class="flex items-baseline justify-between gap-2">
				<span
					>{one.ask}
					<span class="text-[13px] {one.hash === '' && !asTemplate ? 'text-copper' : 'text-quiet'}"
						>{one.hash !== '' ? 'answer set' : asTemplate ? 'answered when it is used' : 'no answer yet'}</span
					></span
				>
				{#if one.hash === '' && !asTemplate}<button
						type="button"
						class="whitespace-nowrap text-[13px] text-thread underline"
						onclick={() => {
							question = one.ask;
							as = one.as;
						}}>Set the answer<span class="unseen"> to “{one.ask}”</span></button
					>{/if}
				<button
					type="button"
					class="whitespace-nowrap text-[13px] text-thread underline"
					onclick={() => {
						const asks = questions.asks.filter(({ id }) => id !== one.id);
						onchange({ asks, right: Math.max(1, Math.min(questions.right, asks.length)) });
					}}>Take out<span class="unseen"> “{one.ask}”</span></button
				>
			</li>
		{/each}
	</ul>
	{#if questions.asks.length < MOST.questions}
		<form
			class="grid gap-2"
			onsubmit={(event) => {
				event.preventDefault();
				void add();
			}}
		>
			<label
				>A question<input class="input mt-1" maxlength="200" required autocomplete="off" bind:value={question} /></label
			>
			<Choice
				label="Answered with"
				value={as}
				options={[
					['text', 'words: capitals, accents and signs don’t matter'],
					['number', 'a number'],
					['date', 'a day']
				]}
				onchoose={(way) => {
					as = way as typeof as;
					answer = '';
				}}
			/>
			{#if asTemplate}<p class="text-[13px] text-quiet">Whoever uses the template gives the answer.</p>
			{:else if as === 'date'}<Day label="The right answer" value={answer} onchoose={(day) => (answer = day)} />
			{:else}<label
					>The right answer<input
						class="input mt-1"
						maxlength="200"
						required
						autocomplete="off"
						spellcheck="false"
						bind:value={answer}
					/></label
				>{/if}
			<p class="flex items-center gap-2"><button class="button">Add the question</button></p>
			<p class="text-[13px] text-quiet" role="status">{say}</p>
		</form>
	{/if}
	{#if questions.asks.length > 1}
		<Choice
			label="So many must be right"
			value={String(questions.right)}
			options={numbers(questions.asks.length)}
			onchoose={(n) => onchange({ ...questions, right: Number(n) })}
		/>
	{/if}
</div>
