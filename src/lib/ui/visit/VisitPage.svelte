<script lang="ts">
	import { tick, untrack } from 'svelte';
	import { send, type Kept } from '../signing/keeper';
	import { useWords } from '../signing/words';
	import Confirm from './Confirm.svelte';
	import FirstView from './FirstView.svelte';
	import { tell } from './frame';
	import QuestionsPage from './QuestionsPage.svelte';
	import { END, Visit, type Kept as KeptVisit, type Visited } from './visit.svelte';

	/** An intake as its visitor goes through it: who they are, page after page, and at the end the way to the document. */
	let {
		visited,
		html,
		heading,
		organisation,
		contact,
		base,
		door,
		begun,
		invited = null,
		accessKey = null,
		first = {},
		rehearsed = false
	}: {
		visited: Visited;
		/** the office's texts as HTML, by item; the first view's under '' */
		html: Record<string, string>;
		heading: string;
		organisation: string;
		contact: string;
		/** `/i/SLUG` */
		base: string;
		door: 'code' | null;
		begun: {
			token: string;
			page: string;
			proved: boolean;
			email: string;
			kept: Partial<KeptVisit>;
			handedIn: boolean;
			byOffice: boolean;
		} | null;
		invited?: { name: string; email: string } | null;
		/** the key of a sheet's link */
		accessKey?: string | null;
		/** first answers, by key, as the page around a frame gives them */
		first?: Record<string, string>;
		/** nothing is sent: the office tries it */
		rehearsed?: boolean;
	} = $props();

	/** what the server may say besides */
	interface Came {
		code?: string;
		token?: string;
		to?: string | null;
		name?: string;
		reference?: string;
	}
	const words = useWords();
	const visit = new Visit(
		untrack(() => visited),
		words
	);
	/** what this browser keeps it under */
	let store = untrack(() => `pellum-intake ${base}`);
	/** the address that is proved; '' none yet */
	let proved = $state(untrack(() => (begun?.proved && begun.email) || ''));
	/** they want it saved before the end, which needs their address */
	let later = $state(false);
	let busy = $state(false);
	let wrong = $state('');
	let sentTo = $state<string | null>(null);
	let root = $state<HTMLElement>();
	let restored = $state(false);

	// what this browser has kept, or the server of the case whose link this is
	$effect(() => {
		untrack(() => {
			if (invited) Object.assign(visit.visitor, invited);
			visit.byOffice = begun?.byOffice ?? false;
			visit.start(first);
			if (!rehearsed) visit.resume(here());
			restored = true;
		});
	});

	/**
	 * What is kept of it: by this browser, and over that by the server for the case whose link this is. Before an address is proved the
	 * server has nothing; another case that this browser keeps is left alone.
	 */
	function here(): Partial<KeptVisit> {
		let own = readHere();
		if (!begun) return own;
		if (own.token !== begun.token) {
			store += ` ${begun.token}`;
			own = readHere();
		}
		return { ...own, ...begun.kept, token: begun.token, page: begun.page || own.page || '' };
	}
	function readHere(): Partial<KeptVisit> {
		try {
			return JSON.parse(localStorage.getItem(store) ?? '{}') as Partial<KeptVisit>;
		} catch {
			// a browser that keeps nothing still asks
			return {};
		}
	}

	const needsProof = $derived(
		visited.setting.proof &&
			!rehearsed &&
			!visit.byOffice &&
			proved.toLowerCase() !== visit.visitor.email.trim().toLowerCase()
	);
	const name = $derived(visit.about);

	let timer: ReturnType<typeof setTimeout> | undefined;
	let unkept = $state('');
	$effect(() => {
		const kept = visit.kept;
		if (!restored || rehearsed) return;
		try {
			localStorage.setItem(store, JSON.stringify(kept));
		} catch {
			// it still goes to the server at the end
		}
		clearTimeout(timer);
		timer = setTimeout(() => void keep(), 800);
		return () => clearTimeout(timer);
	});

	async function keep() {
		if (!visit.token || sentTo !== null) return;
		const { page } = visit.kept;
		const got = await post(`${base}/${visit.token}/keep`, 'PUT', { page, ...(proved && { entered: visit.entered }) });
		unkept = got.ok ? '' : got.say;
	}

	/** Asks the server; a case that is not kept any more is begun anew. */
	async function post(url: string, method: string, body: object): Promise<Kept & Came> {
		const got: Kept & Came = await send(url, method, body, words());
		if (got.code === 'case-gone' && !begun) {
			visit.token = null;
			visit.at = '';
		}
		return got;
	}

	async function begin(given: { code: string; website: string }) {
		if (!visit.next()) return void focusWrong();
		if (rehearsed || visit.token) return;
		busy = true;
		const got = await post(`${base}/begin`, 'POST', {
			...given,
			language: words().language,
			...(accessKey && { key: accessKey })
		});
		busy = false;
		wrong = got.ok ? '' : got.say;
		if (got.ok) {
			visit.token = got.token!;
			tell('started');
			await top();
		} else visit.at = '';
	}
	async function goOn() {
		if (!visit.next()) return void focusWrong();
		wrong = '';
		await top();
	}
	async function goBack() {
		wrong = '';
		visit.back();
		await top();
	}
	async function top() {
		await tick();
		root?.scrollIntoView({ block: 'start' });
		root?.querySelector<HTMLElement>('h2')?.focus();
	}
	async function focusWrong() {
		await tick();
		root?.querySelector<HTMLElement>('[aria-invalid="true"], .wrong:not(:empty)')?.scrollIntoView({ block: 'center' });
	}

	async function finish() {
		if (busy) return;
		if (rehearsed) return void (sentTo = name);
		busy = true;
		const got = await post(`${base}/${visit.token}/hand-in`, 'POST', visit.entered);
		busy = false;
		wrong = got.ok ? '' : got.say;
		if (!got.ok) {
			if (got.at) visit.show(got.at);
			return;
		}
		localStorage.removeItem(store);
		tell('handed in', got.reference ?? '');
		if (got.to) location.assign(got.to);
		else sentTo = got.name ?? name;
	}
</script>

{#snippet confirming()}
	<Confirm
		base="{base}/{visit.token}"
		name={visit.visitor.name}
		email={visit.visitor.email.trim()}
		onright={() => {
			proved = visit.visitor.email.trim();
			void keep();
		}}
	/>
{/snippet}

<main id="main" bind:this={root} class="mx-auto max-w-2xl scroll-mt-24 px-5 py-8 text-[17px] leading-7">
	{#if begun?.handedIn}
		<h2 class="pb-2 text-xl">{heading}</h2>
		<p>{words()('intake.handed')}</p>
	{:else if sentTo !== null}
		<h2 class="pb-2 text-xl" tabindex="-1">{words()('intake.sent', { name: sentTo })}</h2>
		<p>{words()('intake.sent text')}</p>
	{:else if visit.at === ''}
		<FirstView
			{visit}
			{heading}
			html={html[''] ?? ''}
			asksCode={door === 'code'}
			{busy}
			{wrong}
			ready={restored}
			onbegin={begin}
		/>
	{:else if visit.at === END}
		<h2 class="pb-3 text-xl" tabindex="-1">
			{visit.prepares ? words()('intake.finish other', { name }) : words()('intake.finish')}
		</h2>
		{#if needsProof}
			{@render confirming()}
		{:else if visited.setting.proof && !rehearsed}<p role="status">
				{words().joined([words()('intake.confirmed'), words()('intake.kept')])}
			</p>{/if}
		<p class="wrong pt-3 empty:hidden" role="alert">{wrong}</p>
		<p class="flex flex-wrap gap-3 pt-5">
			<button type="button" class="button large" onclick={goBack}>{words()('back')}</button>
			<button
				type="button"
				class="button large {needsProof ? '' : 'primary'}"
				disabled={busy || needsProof}
				onclick={finish}>{visit.prepares ? words()('intake.finish other', { name }) : words()('intake.finish')}</button
			>
		</p>
	{:else if visit.seen.length > 0}
		<QuestionsPage {visit} pages={visit.seen} {heading} {html} {busy} {wrong} onnext={goOn} onback={goBack} />
		{#if visit.token && !proved && !rehearsed}
			<div class="pt-6">
				{#if later}{@render confirming()}
				{:else}<button type="button" class="plain" onclick={() => (later = true)}>{words()('menu.save')}</button>{/if}
			</div>
		{/if}
	{/if}
	{#if restored && !rehearsed && sentTo === null && !begun?.handedIn}
		<p class="pt-6 text-[14px] text-quiet" role="status">
			{unkept || (visit.token ? words()(proved ? 'intake.kept' : 'intake.here') : '')}
		</p>
	{/if}
	{#if contact}<p class="pt-2 text-[14px] text-quiet">
			{words()('intake.contact', { address: contact })}<span class="unseen">{organisation}</span>
		</p>{/if}
</main>
