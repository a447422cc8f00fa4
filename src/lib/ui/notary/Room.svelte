<script lang="ts">
	import { kindOf, live } from '../../core/field';
	import { isoDay } from '../../core/calendar';
	import { fromShown } from '../../core/page';
	import SignPages from '../signing/SignPages.svelte';
	import { useWords } from '../signing/words';
	import Asked from './Asked.svelte';
	import Desk from './Desk.svelte';
	import type { Point } from './point';
	import type { Room } from './room.svelte';
	import People from './People.svelte';
	import Talk from './Talk.svelte';
	import Yourself from './Yourself.svelte';

	/** The room before a notary: the same page for all, what is asked now, who is there, and words. */
	let { room, back }: { room: Room; /** where one's own page is */ back: string } = $props();

	const words = useWords();
	const view = $derived(room.view);
	const paper = $derived(view.papers.find((one) => one.id === view.page.paper)!);
	const page = $derived(paper.pages[view.page.page]!);
	const now = $derived(live({ fields: view.fields }, view.answers, isoDay(view.zone, view.now)));
	const all = $derived(view.papers.flatMap((one) => one.pages.map((_, n) => ({ paper: one.id, page: n }))));
	const at = $derived(all.findIndex((one) => one.paper === view.page.paper && one.page === view.page.page));
	/** the place that the notary has pressed, points of the page */
	let pointed = $state<Point | null>(null);
	const turn = (by: number) => {
		const to = all[at + by];
		if (to) void room.deed({ do: 'show', ...to });
	};

	function point(event: MouseEvent) {
		if (!view.me.notary) return;
		const sheet = (event.target as HTMLElement).closest<HTMLElement>('[data-seen]');
		if (!sheet) return;
		const box = sheet.getBoundingClientRect();
		const scale = box.width / (page.rotate % 180 === 0 ? page.width : page.height);
		const rect = fromShown(page, {
			left: (event.clientX - box.left) / scale,
			top: (event.clientY - box.top) / scale,
			width: 0,
			height: 0
		});
		pointed = { paper: paper.id, page: view.page.page, x: Math.round(rect.x), y: Math.round(rect.y) };
	}
	const waiting = $derived(
		view.fields
			.filter((field) => view.answers[field.id] === undefined && kindOf(field.kind).filledBy !== 'nobody')
			.map((field) => field.id)
	);
</script>

<main id="main" class="grid grid-cols-1 lg:h-[calc(100dvh-73px)] lg:grid-cols-[1fr_400px] lg:overflow-hidden">
	<!-- what is larger than its room is moved by scrolling, also by keys -->
	<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
	<section
		class="order-2 min-w-0 bg-desk px-2 py-4 sm:px-8 lg:order-1 lg:overflow-y-auto"
		aria-label={paper.name}
		tabindex="0"
		dir="ltr"
	>
		<p class="flex flex-wrap items-center gap-3 pb-3 text-[15px]" dir={words().direction}>
			{#if view.me.notary}
				<button class="button" disabled={at <= 0 || room.busy} onclick={() => turn(-1)}>Page before</button>
				<button class="button" disabled={at >= all.length - 1 || room.busy} onclick={() => turn(1)}>Next page</button>
			{/if}
			<span>{words()('paper.page', { page: at + 1, pages: all.length })}</span>
			{#if !view.me.notary}<span class="text-quiet">{words()('room.pages')}</span>{/if}
		</p>
		<!-- where a place is pointed at; by keyboard it is written at the desk -->
		<!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
		<div onclick={point} class={view.me.notary ? 'cursor-crosshair' : ''}>
			<SignPages
				papers={[paper]}
				only={view.page.page}
				fields={view.fields}
				marked={waiting}
				{now}
				locale={view.locale}
				paperUrl={(one) => `${room.base}/papers/${one.id}?v=${one.digest.slice(0, 8)}`}
				pictures="{room.base}/pictures"
			/>
		</div>
	</section>
	<div class="contents lg:order-2 lg:block lg:overflow-y-auto lg:border-s lg:border-hairline lg:bg-sheet">
		<section
			class="order-1 max-h-[70dvh] overflow-y-auto border-b border-hairline bg-sheet px-5 py-4 lg:max-h-none"
			aria-label={words()('notary.title')}
			aria-live="polite"
		>
			{#if view.me.notary}<Desk {room} bind:pointed />{:else}<Asked {room} {back} />{/if}
			<p class="wrong pt-2 empty:hidden" role="alert">{room.wrong}</p>
		</section>
		<section class="order-3 bg-sheet" aria-label={words()('room.people')}>
			<People {view} />
			{#if view.is !== 'over'}
				<Talk {room} />
				<Yourself />
			{/if}
			<p class="flex flex-wrap gap-2 px-5 py-4">
				<a class="button large" href={back}>{words()('room.back')}</a>
				{#if view.present}<button class="button large" onclick={() => room.deed({ do: 'leave' })}
						>{words()('room.leave')}</button
					>{/if}
			</p>
		</section>
	</div>
</main>
