<script lang="ts">
	import { enhance } from '$app/forms';
	import { post } from '../post';
	import { saidTo, type Answered } from './form';
	import SmallForm from './SmallForm.svelte';

	interface Person {
		id: string;
		name: string;
		email: string;
		phone: string;
		deliver: string;
		duty: string;
		standing: string;
		why: string;
		nudged: string | null;
	}
	/** Those who have not finished, with what can be done for each: nudge, take the link, correct how they are reached. */
	let { packet, people, now, answered }: { packet: string; people: Person[]; now: string; answered: Answered | null } =
		$props();

	let correcting = $state('');
	let link = $state<{ person: string; link: string } | null>(null);
	let wrong = $state('');
	const has = (person: Person) => ['notified', 'opened'].includes(person.standing);
	const lately = (person: Person) => person.nudged !== null && Date.parse(now) - Date.parse(person.nudged) < 3_600_000;
	const STANDING: Record<string, string> = { opened: 'has opened it', notified: 'has it', held: 'held', waiting: '' };
	const waiting = $derived(people.filter(has));

	async function take(person: Person) {
		const got = await post<{ link: string }>(`/packets/${packet}/link`, { person: person.id }, 'Nothing was done.');
		wrong = 'wrong' in got ? got.wrong : '';
		link = 'link' in got ? { person: person.id, link: got.link } : null;
		if (link) await navigator.clipboard?.writeText(link.link).catch(() => undefined);
	}
</script>

<div class="flex items-baseline gap-3">
	<h2 class="text-[16px]">Still to come</h2>
	{#if waiting.length > 1}
		<form method="POST" action="?/nudge" class="ml-auto" use:enhance>
			<button class="button">Nudge all {waiting.length}</button>
		</form>
	{/if}
</div>
{#if answered?.form === 'nudge' && !answered.kept?.['person']}
	<p role="status" class={answered.say ? 'wrong' : 'text-moss'}>{answered.say ?? 'They have been nudged.'}</p>
{/if}
<ul class="pb-5">
	{#each people as person (person.id)}
		<li class="border-b border-hairline py-2">
			<p>
				<b>{person.name}</b> <span class="text-quiet">{person.duty}</span>
				{#if STANDING[person.standing]}<span class="text-[14px] text-quiet">· {STANDING[person.standing]}</span>{/if}
			</p>
			<p class="text-[14px] wrap-anywhere {person.standing === 'unreachable' ? 'text-brick' : 'text-quiet'}">
				{[
					person.deliver === 'text' ? '' : person.email,
					person.deliver === 'text' || person.deliver === 'mail and text' ? person.phone : '',
					person.deliver === 'link' ? 'you hand the link on' : person.deliver === 'in person' ? 'in person' : '',
					person.why
				]
					.filter(Boolean)
					.join(' · ')}
			</p>
			{#if correcting === `mail ${person.id}`}
				<SmallForm
					action="?/correct"
					button="Put it right"
					say={saidTo(answered, 'correct', person.id)}
					ondone={() => (correcting = '')}
					onleave={() => (correcting = '')}
				>
					<input type="hidden" name="person" value={person.id} />
					<label
						>New address<input
							class="input mt-1"
							name="email"
							type="email"
							required
							value={answered?.kept?.['email'] ?? person.email}
						/></label
					>
				</SmallForm>
			{:else if correcting === `phone ${person.id}`}
				<SmallForm
					action="?/phone"
					button="Put it right"
					say={saidTo(answered, 'phone', person.id)}
					ondone={() => (correcting = '')}
					onleave={() => (correcting = '')}
				>
					<input type="hidden" name="person" value={person.id} />
					<label
						>New number<input
							class="input mt-1"
							name="phone"
							type="tel"
							required
							value={answered?.kept?.['phone'] ?? person.phone}
						/></label
					>
				</SmallForm>
			{:else}
				<div class="-ml-1 flex flex-wrap gap-x-3">
					{#if has(person) && person.deliver !== 'link' && person.deliver !== 'in person'}
						<form method="POST" action="?/nudge" use:enhance>
							<input type="hidden" name="person" value={person.id} />
							<button
								class="plain"
								disabled={lately(person)}
								title={lately(person) ? 'Nudged within the hour' : undefined}
								>Nudge<span class="unseen"> {person.name}</span></button
							>
						</form>
					{/if}
					{#if person.deliver === 'link'}
						<button
							class="plain"
							disabled={person.standing === 'waiting' && person.duty !== 'gets a copy'}
							onclick={() => take(person)}>Copy the link<span class="unseen"> of {person.name}</span></button
						>
					{/if}
					{#if person.deliver !== 'text' && person.deliver !== 'in person'}
						<button
							class="plain"
							onclick={() => (correcting = `mail ${person.id}`)}
							aria-label="Put the address of {person.name} right">Put the address right</button
						>
					{/if}
					{#if person.deliver === 'text' || person.deliver === 'mail and text'}
						<button
							class="plain"
							onclick={() => (correcting = `phone ${person.id}`)}
							aria-label="Put the number of {person.name} right">Put the number right</button
						>
					{/if}
				</div>
				{#if saidTo(answered, 'nudge', person.id)}<p class="wrong" role="alert">
						{saidTo(answered, 'nudge', person.id)}
					</p>{/if}
				{#if link?.person === person.id}
					<label class="block pt-1 text-[14px]"
						>For {person.name} alone, copied<input
							class="input mt-1 font-mono text-[13px]"
							readonly
							value={link.link}
							onfocus={(e) => e.currentTarget.select()}
						/></label
					>
				{/if}
			{/if}
		</li>
	{/each}
</ul>
<p class="wrong empty:hidden" role="alert">{wrong}</p>
