<script lang="ts">
	import { invalidateAll } from '$app/navigation';
	import { onMount, untrack } from 'svelte';
	import Cases from '$lib/ui/intake/Cases.svelte';
	import Follows from '$lib/ui/intake/Follows.svelte';
	import IntakeHead from '$lib/ui/intake/IntakeHead.svelte';
	import { Making } from '$lib/ui/intake/making.svelte';
	import PageEditor from '$lib/ui/intake/PageEditor.svelte';
	import Pages from '$lib/ui/intake/Pages.svelte';
	import SayEditor from '$lib/ui/intake/SayEditor.svelte';
	import WaysMap from '$lib/ui/intake/WaysMap.svelte';
	import Website from '$lib/ui/intake/Website.svelte';
	import WhoMayStart from '$lib/ui/intake/WhoMayStart.svelte';
	import Tabs from '$lib/ui/parts/Tabs.svelte';
	import Toggles from '$lib/ui/parts/Toggles.svelte';

	let { data, form } = $props();
	const making = untrack(
		() => new Making(data.intake.id, data.plan, data.intake.setting, data.intake.revision, data.today)
	);
	// in the browser: there are no workers where the page is drawn first
	onMount(() => {
		void making.look();
		return () => making.stop();
	});

	// another version of the template has another plan
	$effect(() => {
		if (making.keeping === 'kept' && making.setting.version !== data.intake.setting.version) void invalidateAll();
	});
	$effect(() => {
		if (making.template === data.plan) return;
		making.template = data.plan;
		void making.look();
	});

	let tab = $state(untrack(() => (data.intake.handed > 0 ? 'cases' : 'questions')));
	let beside = $state<'visitor' | 'ways'>('visitor');
	const say = $derived(making.page === null ? making.setting.says.find(({ id }) => id === making.open) : undefined);
	function keys(event: KeyboardEvent) {
		if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return;
		if ((event.target as HTMLElement).closest('input, textarea')) return;
		event.preventDefault();
		if (event.shiftKey) making.redo();
		else making.undo();
	}
	/** To the place of what is wrong. */
	function show(at: string) {
		const page = making.setting.pages.find((one) => one.id === at || one.items.some(({ id }) => id === at));
		if (page) {
			tab = 'questions';
			making.page = page.id;
			making.open = page.id === at ? null : at;
		} else if (making.setting.says.some(({ id }) => id === at)) {
			tab = 'questions';
			making.page = null;
			making.open = at;
		} else tab = making.setting.then.some(({ id }) => id === at) ? 'then' : 'start';
	}
</script>

<svelte:window onkeydown={keys} />
<svelte:head><title>{making.setting.heading} · Intake · Pellum</title></svelte:head>
<main id="main">
	<IntakeHead
		{making}
		intake={data.intake}
		template={data.template}
		used={data.used}
		say={(form as { say?: string } | null)?.say ?? ''}
		onshow={show}
	/>
	<Tabs
		label="Parts of an intake"
		value={tab}
		options={[
			['questions', 'Questions'],
			['start', 'Who may start'],
			['then', 'What follows'],
			['website', 'On a website'],
			['cases', `Cases ${data.intake.begun > 0 ? data.intake.begun : ''}`]
		]}
		onchoose={(to) => (tab = to)}
		look="min-h-[60dvh]"
	>
		{#if tab === 'questions'}
			<div class="flex flex-wrap">
				<nav aria-label="Pages" class="min-w-0 flex-[1_1_220px] border-r border-hairline px-4 py-4">
					<Pages {making} />
				</nav>
				<section aria-label="What is asked" class="min-w-0 flex-[3_1_440px] px-6 py-4">
					{#if making.shown}{#key making.shown.id}<PageEditor {making} page={making.shown} />{/key}
					{:else if say}{#key say.id}<SayEditor {making} {say} />{/key}
					{:else}<p class="max-w-md py-8 font-serif text-quiet">
							Visitors go to the document at once: nothing is asked before it. “A page” begins with questions.
						</p>{/if}
				</section>
				<aside class="min-w-0 flex-[2_1_360px] border-l border-hairline bg-linen px-4 py-4">
					<div class="pb-3">
						<Toggles
							label="Beside"
							value={beside}
							options={[
								['visitor', 'As the visitor sees it'],
								['ways', 'All ways through']
							]}
							onchoose={(to) => (beside = to as typeof beside)}
						/>
					</div>
					{#if beside === 'ways'}
						{#if making.ways}<WaysMap pages={making.setting.pages} ways={making.ways} />{/if}
					{:else}
						{#key making.revision}<iframe
								title="The page as its visitor has it; nothing that is entered goes anywhere"
								src="/intakes/{making.id}/rehearse"
								class="h-[70dvh] w-full border border-hairline bg-sheet"
							></iframe>{/key}
					{/if}
				</aside>
			</div>
		{:else if tab === 'start'}<div class="px-6 py-5">
				<WhoMayStart {making} people={data.people} versions={data.versions} onpeople={() => void invalidateAll()} />
			</div>
		{:else if tab === 'then'}<div class="px-6 py-5">
				<Follows {making} templates={data.templates} rows={data.rows} />
			</div>
		{:else if tab === 'website'}<div class="px-6 py-5">
				<Website {making} address={data.address} code={data.code} />
			</div>
		{:else}<div class="px-6 py-5">
				<Cases
					id={data.intake.id}
					setting={making.setting}
					cases={data.cases}
					left={data.left}
					handed={data.intake.handed}
					zone={data.organisation.zone}
					now={data.now}
					say={(form as { say?: string } | null)?.say ?? ''}
				/>
			</div>{/if}
	</Tabs>
</main>
