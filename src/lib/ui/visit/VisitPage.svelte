<script lang="ts">
	import { tick, untrack } from 'svelte';
	import { patient } from '../post';
	import { LANGUAGES } from '../../words/words';
	import Choice from '../parts/Choice.svelte';
	import OneOf from '../parts/OneOf.svelte';
	import { sentenceOf } from '../signing/keeper';
	import { useWords } from '../signing/words';
	import Formatted from './Formatted.svelte';
	import Confirm from './Confirm.svelte';
	import Question from './Question.svelte';
	import { tell } from './frame';
	import { END, Visit, type Kept, type Visited } from './visit.svelte';
	import Who from './Who.svelte';

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
			kept: Partial<Kept>;
			handedIn: boolean;
		} | null;
		invited?: { name: string; email: string } | null;
		/** the key of a sheet's link */
		accessKey?: string | null;
		/** first answers, by key, as the page around a frame gives them */
		first?: Record<string, string>;
		/** nothing is sent: the office tries it */
		rehearsed?: boolean;
	} = $props();

	const words = useWords();
	const visit = new Visit(
		untrack(() => visited),
		words
	);
	const store = $derived(`pellum-intake ${base}`);
	let proved = $state(untrack(() => begun?.proved ?? false));
	let provedAs = $state(untrack(() => begun?.email ?? ''));
	let busy = $state(false);
	let wrong = $state('');
	let code = $state('');
	/** filled in by what fills in everything */
	let website = $state('');
	let sentTo = $state<string | null>(null);
	let root = $state<HTMLElement>();
	let restored = $state(false);

	// what this browser has kept, or the server of the case whose link this is
	$effect(() => {
		untrack(() => {
			if (invited) Object.assign(visit.visitor, invited);
			visit.start(first);
			let here: Partial<Kept> = {};
			try {
				if (!rehearsed) here = JSON.parse(localStorage.getItem(store) ?? '{}') as Partial<Kept>;
			} catch {
				// a browser that keeps nothing still asks
			}
			if (begun) visit.resume({ ...begun.kept, token: begun.token, page: begun.page });
			else visit.resume(here);
			restored = true;
		});
	});

	const needsProof = $derived(
		visited.setting.proof && !(proved && provedAs.toLowerCase() === visit.visitor.email.trim().toLowerCase())
	);
	/** languages by their own names; without one, that of the person's browser */
	const tongues = LANGUAGES.map((one): [string, string] => [
		one,
		new Intl.DisplayNames(one, { type: 'language' }).of(one) ?? one
	]);
	const name = $derived(visit.prepares ? visit.them.name : visit.visitor.name);

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

	async function post(
		url: string,
		method: string,
		body: object
	): Promise<{ ok: boolean; say: string; at?: string } & Record<string, unknown>> {
		try {
			const response = await patient(url, {
				method,
				headers: { 'Content-Type': 'application/json' },
				body: JSON.stringify(body)
			});
			const said = (await response.json()) as { code?: string; say?: string; at?: string };
			return { ...said, ok: response.ok, say: response.ok ? '' : sentenceOf(said, words()) };
		} catch {
			return { ok: false, say: words()('error.offline') };
		}
	}

	async function begin() {
		if (!visit.next()) return void focusWrong();
		if (rehearsed || visit.token) return;
		busy = true;
		const got = await post(`${base}/begin`, 'POST', {
			code,
			website,
			language: words().language,
			...(accessKey && { key: accessKey })
		});
		busy = false;
		wrong = got.ok ? '' : got.say;
		if (got.ok) {
			visit.token = String(got['token']);
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
		tell('handed in', String(got['reference'] ?? ''));
		if (typeof got['to'] === 'string') location.assign(got['to']);
		else sentTo = String(got['name'] ?? name);
	}
</script>

<main id="main" bind:this={root} class="mx-auto max-w-2xl scroll-mt-24 px-5 py-8 text-[17px] leading-7">
	{#if begun?.handedIn}
		<h2 class="pb-2 text-xl">{heading}</h2>
		<p>{words()('intake.handed')}</p>
	{:else if sentTo !== null}
		<h2 class="pb-2 text-xl" tabindex="-1">{words()('intake.sent', { name: sentTo })}</h2>
		<p>{words()('intake.sent text')}</p>
	{:else if visit.at === ''}
		<h2 class="pb-2 text-xl" tabindex="-1">{heading}</h2>
		<Formatted html={html[''] ?? ''} />
		<p class="pb-4 text-quiet">{words()('intake.long', { n: visited.setting.pages.length })}</p>
		<form
			onsubmit={(event) => {
				event.preventDefault();
				void begin();
			}}
			novalidate
		>
			{#if visited.setting.representative === 'may'}
				<OneOf
					label={words()('intake.who')}
					bind:value={() => (visit.prepares ? 'other' : 'self'), (value) => (visit.prepares = value === 'other')}
					options={[
						['self', words()('intake.self')],
						['other', words()('intake.other')]
					]}
				/>
			{/if}
			<Who bind:who={visit.visitor} legend={words()('intake.you')} wrong={visit.wrongWho(visit.visitor, true)} />
			{#if visit.prepares}
				<Who bind:who={visit.them} legend={words()('intake.them')} wrong={visit.wrongWho(visit.them, false)} />
			{/if}
			{#if door === 'code' && !visit.token}
				<label class="block py-3"
					>{words()('intake.door')}<input
						class="input mt-1 min-h-[44px]!"
						autocomplete="off"
						maxlength="40"
						dir="ltr"
						bind:value={code}
					/></label
				>
			{/if}
			<label class="trap" aria-hidden="true"
				>Website<input name="website" tabindex="-1" autocomplete="off" bind:value={website} /></label
			>
			<p class="wrong empty:hidden" role="alert">{wrong}</p>
			<p class="pt-3">
				<button class="button primary large w-full sm:w-auto" disabled={busy || !restored}
					>{words()(visit.token ? 'code.go' : 'intake.begin')}</button
				>
			</p>
		</form>
	{:else if visit.at === END}
		<h2 class="pb-3 text-xl" tabindex="-1">
			{visit.prepares ? words()('intake.finish other', { name }) : words()('intake.finish')}
		</h2>
		{#if needsProof && !rehearsed}
			<Confirm
				base="{base}/{visit.token}"
				name={visit.visitor.name}
				email={visit.visitor.email.trim()}
				onright={() => {
					proved = true;
					provedAs = visit.visitor.email.trim();
					void keep();
				}}
			/>
		{:else if visited.setting.proof && !rehearsed}<p role="status">
				{words().joined([words()('intake.confirmed'), words()('intake.kept')])}
			</p>{/if}
		<p class="wrong pt-3 empty:hidden" role="alert">{wrong}</p>
		<p class="flex flex-wrap gap-3 pt-5">
			<button type="button" class="button large" onclick={goBack}>{words()('back')}</button>
			<button
				type="button"
				class="button large {needsProof && !rehearsed ? '' : 'primary'}"
				disabled={busy || (needsProof && !rehearsed)}
				onclick={finish}>{visit.prepares ? words()('intake.finish other', { name }) : words()('intake.finish')}</button
			>
		</p>
	{:else if visit.passed}
		{@const { page, items, roles } = visit.passed}
		<p class="text-[14px] text-quiet">{words()('intake.page', { n: visit.index + 1 })}</p>
		<h2 class="pb-2 text-xl" tabindex="-1" dir="auto">{page.title || heading}</h2>
		<form
			onsubmit={(event) => {
				event.preventDefault();
				void goOn();
			}}
			novalidate
		>
			{#each items as item (item.id)}
				{#if item.is === 'text'}<Formatted html={html[item.id] ?? ''} />
				{:else if item.is === 'people'}
					{#each roles[item.id] ?? [] as role (role)}
						{@const person = visited.plan.people.find(({ id }) => id === role)}
						{#if person}
							<Who
								bind:who={visit.named[role]!}
								legend={words()('naming.who', { role: person.role ?? '' })}
								help={visit.isOptional(role) ? words()('todo.may stay empty') : ''}
								phone
								wrong={visit.isOptional(role) && `${visit.named[role]!.name}${visit.named[role]!.email}`.trim() === ''
									? ''
									: visit.wrongWho(visit.named[role]!, false)}
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
			{#each visit.way.closed ? [visit.way.closed] : visit.passed.says as say (say.id)}
				<p
					role="status"
					dir="auto"
					class="my-3 border-s-[3px] ps-4 {say.closes ? 'border-s-[var(--brick)]' : 'border-s-thread'}"
				>
					{say.say}
				</p>
			{/each}
			<p class="wrong empty:hidden" role="alert">{wrong}</p>
			<p class="flex flex-wrap gap-3 pt-4">
				<button type="button" class="button large" onclick={goBack}>{words()('back')}</button>
				<button class="button primary large" disabled={busy || visit.way.closed !== null}>{words()('code.go')}</button>
			</p>
		</form>
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

<style>
	.trap {
		position: absolute;
		inset-inline-start: -9999px;
	}
</style>
