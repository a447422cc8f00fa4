<script lang="ts">
	import Choice from '../../parts/Choice.svelte';
	import { DELIVERIES, isPhone, isTexted, LOCALES, type DeliveryWay, type PlanPerson } from '../../../core/packet';
	import { mayHost } from '../../../core/route';
	import { roleName } from '../../../core/template';
	import { LANGUAGES } from '../../../words/words';
	import type { Bench } from '../bench.svelte';
	import type { SetPerson } from '../../../core/plan';

	/** How somebody hears that it is their turn, in which language, and what only they read. */
	let { bench, person, set }: { bench: Bench; person: PlanPerson; set: SetPerson } = $props();

	const WAY_NAMES: Record<DeliveryWay, string> = {
		mail: 'by mail',
		'mail and text': 'by mail and text message',
		text: 'by text message only',
		link: 'I hand on the link myself',
		'in person': 'in front of a host, or on the notary’s device'
	};
	const names = new Intl.DisplayNames('en-GB', { type: 'language' });
	const hosts = $derived(bench.plan.people.filter((p) => mayHost(p) && p.id !== person.id));
	const phone = $derived(person.phone ?? '');
	const spoken = (locale: string) => (LANGUAGES as readonly string[]).includes(locale.split('-')[0]!);
</script>

<Choice
	label="Hears of it"
	id="person-deliver"
	value={person.deliver ?? 'mail'}
	options={DELIVERIES.filter((way) => way !== 'in person' || (!mayHost(person) && person.duty !== 'gets a copy')).map(
		(way) => [way, WAY_NAMES[way]]
	)}
	onchoose={(chosen) => {
		const way = chosen as DeliveryWay;
		set(
			'how they are reached',
			{
				deliver: way === 'mail' ? undefined : way,
				hostedBy: way === 'in person' ? (person.hostedBy ?? hosts[0]?.id) : undefined
			},
			false
		);
	}}
/>
{#if person.deliver === 'in person'}
	<Choice
		label="Hosted by"
		value={person.hostedBy ?? ''}
		options={[
			['', hosts.length === 0 ? 'nobody hosts yet: give somebody that duty' : 'choose'],
			...hosts.map((host): [string, string] => [host.id, host.name || roleName(host)])
		]}
		onchoose={(host) => set('who hosts them', { hostedBy: host || undefined }, false)}
	/>
{/if}
{#if isTexted(person) || phone !== ''}
	<label
		>Telephone <span class="text-quiet">with its country code</span><input
			id="person-phone"
			class="input mt-1"
			type="tel"
			maxlength="40"
			autocomplete="off"
			readonly={bench.isPersonLocked(person.id, 'address')}
			placeholder="+44 7700 900123"
			value={phone}
			oninput={(e) => set('telephone', { phone: e.currentTarget.value })}
		/></label
	>
	{#if phone !== '' && !isPhone(phone)}<p class="wrong -mt-2">That can’t be a telephone number yet.</p>{/if}
{/if}
<Choice
	label="Language of their page and letters"
	value={person.locale ?? ''}
	options={[
		['', 'what their browser asks for'],
		...LOCALES.map((locale): [string, string] => [
			locale,
			`${names.of(locale)}${spoken(locale) ? '' : ', page in English'}`
		])
	]}
	onchoose={(locale) => set('language', { locale: (locale || undefined) as PlanPerson['locale'] }, false)}
/>
<label
	>Note for {person.name || roleName(person)} alone<textarea
		class="input mt-1 h-16"
		maxlength="4000"
		value={person.note ?? ''}
		oninput={(e) => set('note', { note: e.currentTarget.value })}></textarea></label
>
