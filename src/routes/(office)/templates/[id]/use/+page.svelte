<script lang="ts">
	import Known from '$lib/ui/people/Known.svelte';
	import Check from '$lib/ui/parts/Check.svelte';
	import { goto } from '$app/navigation';
	import { isoDay } from '$lib/core/calendar';
	import { live, spread, type Answer } from '$lib/core/field';
	import { isAddress, isMailed, isPhone, isTexted, localeOf, preflight, type PlanPerson } from '$lib/core/packet';
	import { filledIn, isLocked, openAnswers, openRoles, roleName, used } from '$lib/core/template';
	import { rightNow } from '$lib/ui/dates';
	import { post } from '$lib/ui/post';
	import { wantCheckers } from '$lib/ui/signing/checkers';
	import AnswerInput from '$lib/ui/signing/AnswerInput.svelte';
	import { untrack } from 'svelte';

	let { data } = $props();
	const plan = $derived(data.plan);
	const roles = $derived(plan ? openRoles(plan) : []);
	const fixed = $derived(plan ? plan.people.filter((p) => !roles.includes(p)) : []);
	const asked = $derived(plan ? openAnswers(plan) : []);

	const NOTHING = { phone: '', code: '', hash: '', out: false };
	untrack(() => wantCheckers(data.plan?.fields ?? []));
	let title = $state(untrack(() => data.plan?.title ?? ''));
	interface Taken {
		name: string;
		email: string;
		phone: string;
		/** an access code they are told another way, and the hash that the plan keeps of it */
		code: string;
		hash: string;
		out: boolean;
	}
	let people = $state<Record<string, Taken>>(
		untrack(() => {
			const first = data.plan ? openRoles(data.plan)[0]?.id : undefined;
			return Object.fromEntries(
				(data.plan?.people ?? []).map((p) => [
					p.id,
					p.id === first && data.forWhom.email
						? { ...data.forWhom, ...NOTHING }
						: { name: p.name, email: p.email, ...NOTHING, phone: p.phone ?? '' }
				])
			);
		})
	);
	const setsCode = (role: PlanPerson) => role.check?.by === 'code' && role.check.hash === '';
	let answers = $state<Record<string, Answer>>({});
	let busy = $state('');
	let wrong = $state('');

	/** What is given so far, as the server takes it. */
	const given = $derived({
		title: title.trim(),
		people: Object.fromEntries(
			roles.map((role) => {
				const one = people[role.id]!;
				const taken = {
					name: one.name.trim(),
					email: one.email.trim(),
					...(isTexted(role) && { phone: one.phone.trim() }),
					...(one.hash !== '' && { check: { by: 'code' as const, hash: one.hash } })
				};
				return [role.id, one.out ? null : taken];
			})
		),
		answers: $state.snapshot(answers) as Record<string, Answer>
	});
	const packet = $derived(plan ? used(plan, given) : null);
	const findings = $derived(packet ? preflight(packet, data.sender).filter((f) => !f.mild) : []);
	const now = $derived(
		packet ? live(packet, spread(packet.fields, packet.answers ?? {}), isoDay(data.zone, rightNow())) : null
	);
	const letter = $derived(
		packet
			? filledIn(packet.message, { plan: packet, answers: packet.answers ?? {}, sender: data.sender, until: null })
			: ''
	);

	/** The plan keeps an access code only as a salted hash, which the server makes. */
	async function keepCode(id: string) {
		const one = people[id]!;
		one.hash = '';
		if (one.code.trim() === '') return;
		const done = await post<{ hash: string }>(`/bench/code`, { code: one.code.trim() }, 'The code is not set yet.');
		if ('wrong' in done) wrong = done.wrong;
		else one.hash = done.hash;
	}

	async function make(send: boolean) {
		busy = send ? 'Sending…' : 'Making the draft…';
		wrong = '';
		const done = await post<{ packet?: string; draft?: string }>(
			`/templates/${data.id}/send`,
			{ send, given },
			'What you entered is kept here.'
		);
		busy = '';
		if ('wrong' in done) wrong = done.wrong;
		else await goto(done.packet ? `/packets/${done.packet}` : `/bench/${done.draft}`);
	}
</script>

<svelte:head><title>Use {data.title} · Pellum</title></svelte:head>
<main id="main" class="mx-auto max-w-[680px] px-6 py-6">
	<p class="text-[14px] text-quiet">
		<a class="text-thread underline" href="/templates?id={data.id}">Templates</a> · version {data.version}
	</p>
	<h1 class="text-[22px] leading-7">{data.title}</h1>
	<p class="pb-4 text-quiet">{data.description}</p>
	{#if !plan}
		<p role="alert" class="rounded-sm border border-copper p-3">{data.why}</p>
	{:else}
		<form
			class="grid gap-5"
			onsubmit={(event) => {
				event.preventDefault();
				void make(true);
			}}
		>
			<label>Title<input class="input mt-1" maxlength="200" bind:value={title} /></label>
			{#each roles as role (role.id)}
				{@const one = people[role.id]!}
				<fieldset class="border-l-2 border-thread pl-4">
					<legend class="-ml-4 pb-1 pl-4 font-semibold"
						>{roleName(role)} <span class="font-normal text-quiet">{role.duty}</span></legend
					>
					{#if role.optional}<p class="pb-1"><Check label="nobody this time" bind:checked={one.out} /></p>{/if}
					{#if !one.out}
						<div class="grid gap-3 min-[560px]:grid-cols-2">
							<Known
								label="Name"
								readonly={role.name !== '' && (role.locked?.includes('name') ?? false)}
								value={one.name}
								onname={(name) => (one.name = name)}
								onperson={({ email }) => (one.email = email)}
							/>
							<label
								>E-mail{isMailed(role) ? '' : ', for the copies'}<input
									class="input mt-1"
									type="email"
									maxlength="254"
									autocomplete="off"
									aria-invalid={one.email.trim() !== '' && !isAddress(one.email.trim())}
									bind:value={one.email}
								/></label
							>
							{#if isTexted(role)}
								<label
									>Telephone, with its country code<input
										class="input mt-1"
										type="tel"
										maxlength="40"
										autocomplete="off"
										aria-invalid={one.phone.trim() !== '' && !isPhone(one.phone.trim())}
										bind:value={one.phone}
									/></label
								>
							{/if}
							{#if setsCode(role)}
								<label
									>Access code, which you tell them another way<input
										class="input mt-1 font-mono"
										minlength="4"
										maxlength="40"
										autocomplete="off"
										bind:value={one.code}
										onchange={() => void keepCode(role.id)}
									/></label
								>
							{/if}
						</div>
					{/if}
				</fieldset>
			{/each}
			{#each asked as field (field.id)}
				{#if packet && now?.shown(field)}
					<div class="border-l-2 border-hairline pl-4">
						<p class="pb-1 font-semibold">{field.label}{field.required ? '' : ', if you like'}</p>
						<AnswerInput
							{field}
							fields={packet.fields}
							answer={answers[field.id]}
							wrong={answers[field.id] ? (now.check(field, answers[field.id]!)?.say ?? '') : ''}
							locale={localeOf(packet)}
							name={data.sender.name}
							keeper={{
								picture: async () => 'Prepare it on the Bench to sign with a picture.',
								file: async () => 'Prepare it on the Bench to add a file.'
							}}
							large={false}
							ongive={(answer) => {
								if (answer) answers[field.id] = answer;
								else delete answers[field.id];
							}}
						/>
					</div>
				{/if}
			{/each}
			<div class="rounded-sm border border-hairline bg-linen p-3 text-[14px]">
				{#if fixed.length > 0}
					<p class="pb-2">
						Set by the template: {fixed.map((p) => `${p.name} ${p.duty}${p.role ? ` as ${p.role}` : ''}`).join('; ')}.
					</p>
				{/if}
				<p>
					{packet?.days ? `Ends ${packet.days} days after sending.` : 'Has no end.'}
					{plan.papers.map((p) => `“${p.name}”`).join(', ')}{plan.papers.length === 1 ? ' is' : ' are'} signed.
				</p>
				{#if letter}<p class="pt-2 whitespace-pre-wrap text-quiet">{letter}</p>{/if}
				{#if isLocked(plan, 'message')}<p class="pt-1 text-quiet">The message stays as the template has it.</p>{/if}
			</div>
			<div aria-live="polite">
				{#if findings.length > 0}
					<p class="font-semibold text-copper">
						{findings.length}
						{findings.length === 1 ? 'thing' : 'things'} before this can go
					</p>
					<ul class="list-disc pl-5 text-[14px]">
						{#each findings.slice(0, 6) as finding, i (i)}<li>{finding.say}</li>{/each}
					</ul>
				{/if}
			</div>
			<p class="wrong empty:hidden" role="alert">{wrong}</p>
			<p class="flex flex-wrap gap-2">
				<button class="button primary" disabled={busy !== '' || findings.length > 0}>{busy || 'Send now'}</button>
				<button type="button" class="button" disabled={busy !== ''} onclick={() => void make(false)}
					>Prepare on the Bench</button
				>
			</p>
		</form>
	{/if}
</main>
