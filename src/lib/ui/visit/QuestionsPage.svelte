<script lang="ts">
	import type { Passed } from '../../core/intake';
	import { LANGUAGES } from '../../words/words';
	import Choice from '../parts/Choice.svelte';
	import { useWords } from '../signing/words';
	import Formatted from './Formatted.svelte';
	import Question from './Question.svelte';
	import type { Visit } from './visit.svelte';
	import Who from './Who.svelte';

	/** A page of questions, or all of them where they stand together, with what the rules say. */
	let {
		visit,
		pages,
		heading,
		html,
		busy,
		wrong,
		onnext,
		onback
	}: {
		visit: Visit;
		pages: Passed[];
		heading: string;
		html: Record<string, string>;
		busy: boolean;
		wrong: string;
		onnext: () => void;
		onback: () => void;
	} = $props();

	const words = useWords();
	/** languages by their own names; without one, that of the person's browser */
	const tongues = LANGUAGES.map((one): [string, string] => [
		one,
		new Intl.DisplayNames(one, { type: 'language' }).of(one) ?? one
	]);
</script>

{#if visit.asFar}<p class="pb-3">{words()('intake.as far')}</p>{/if}
{#if pages.length === 1}<p class="text-[14px] text-quiet">{words()('intake.page', { n: visit.index + 1 })}</p>{/if}
<form
	onsubmit={(event) => {
		event.preventDefault();
		onnext();
	}}
	novalidate
>
	{#each pages as passed, n (passed.page.id)}
		<h2 class="pb-2 text-xl {n > 0 ? 'pt-5' : ''}" tabindex="-1" dir="auto">{passed.page.title || heading}</h2>
		{#each passed.items as item (item.id)}
			{#if item.is === 'text'}<Formatted html={html[item.id] ?? ''} />
			{:else if item.is === 'people'}
				{#each passed.roles[item.id] ?? [] as role (role)}
					{@const person = visit.of.plan.people.find(({ id }) => id === role)}
					{#if person}
						<Who
							bind:who={visit.named[role]!}
							legend={words()('naming.who', { role: person.role ?? '' })}
							help={visit.mayStayEmpty(role) ? words()('todo.may stay empty') : ''}
							phone
							wrong={visit.wrongNamed(role)}
						>
							{#snippet more()}
								<Choice
									label={words()('page.language')}
									large
									value={visit.named[role]!.locale ?? ''}
									options={tongues}
									onchoose={(locale) => (visit.named[role]!.locale = locale || undefined)}
								/>
								<label
									>{words()('naming.note')}<textarea
										class="input mt-1"
										maxlength="1000"
										bind:value={visit.named[role]!.note}></textarea></label
								>
							{/snippet}
						</Who>
					{/if}
				{/each}
			{:else}<Question {visit} {item} />{/if}
		{/each}
		{#each visit.closedHere && n === pages.length - 1 ? [visit.closedHere] : passed.says as say (say.id)}
			<p
				role="status"
				dir="auto"
				class="my-3 border-s-[3px] ps-4 {say.closes ? 'border-s-[var(--brick)]' : 'border-s-thread'}"
			>
				{say.say}
			</p>
		{/each}
	{/each}
	<p class="wrong empty:hidden" role="alert">{wrong}</p>
	<p class="flex flex-wrap gap-3 pt-4">
		<button type="button" class="button large" onclick={onback}>{words()('back')}</button>
		<button class="button primary large" disabled={busy || visit.closedHere !== null}>{words()('code.go')}</button>
	</p>
</form>
