<script lang="ts">
	import { onMount } from 'svelte';
	import type { VisitorView } from '../../core/intake';
	import { useWords } from '../signing/words';
	import { firstAnswers, tellHeight } from './frame';
	import VisitPage from './VisitPage.svelte';

	/** An intake's page as it is now: shut with the office's sentence, or open. */
	let {
		view,
		slug,
		token,
		accessKey
	}: {
		view: VisitorView;
		slug: string;
		token: string | null;
		accessKey: string | null;
	} = $props();

	const words = useWords();
	onMount(tellHeight);
	const begun = $derived(
		view.state === 'open' && view.begun && token
			? {
					token,
					page: view.begun.page,
					proved: view.begun.proved,
					email: view.begun.email,
					handedIn: view.begun.handedIn,
					byOffice: view.begun.byOffice,
					// nothing, as long as their address is not proved
					kept: view.begun.starting
						? {
								answers: view.begun.answers,
								visitor: view.begun.starting.visitor,
								prepares: view.begun.starting.prepares !== null,
								...(view.begun.starting.prepares && { them: view.begun.starting.prepares }),
								named: view.begun.starting.named
							}
						: {}
				}
			: null
	);
</script>

{#if view.state === 'closed'}
	<main id="main" class="mx-auto max-w-2xl px-5 py-12 text-[17px] leading-7">
		<h2 class="pb-2 text-xl">{words()('intake.closed')}</h2>
		<p dir="auto" class="whitespace-pre-wrap">{view.say}</p>
		{#if view.contact}<p class="pt-4 text-[15px] text-quiet">
				{words()('intake.contact', { address: view.contact })}
			</p>{/if}
	</main>
{:else}
	<VisitPage
		visited={{
			setting: view.setting,
			plan: view.plan,
			today: view.today,
			known: view.known
		}}
		html={view.html}
		heading={view.heading}
		organisation={view.organisation}
		contact={view.contact}
		base="/i/{slug}"
		door={view.door}
		{begun}
		invited={view.invited}
		{accessKey}
		first={typeof location === 'undefined' ? {} : firstAnswers(location.hash)}
	/>
{/if}
