<script lang="ts">
	import { goto } from '$app/navigation';
	import VisitFrame from '$lib/ui/visit/VisitFrame.svelte';
	import VisitPage from '$lib/ui/visit/VisitPage.svelte';

	let { data } = $props();
</script>

<VisitFrame
	base=""
	heading={data.heading}
	{...data.organisation}
	language={data.language}
	direction={data.language === 'ar' ? 'rtl' : 'ltr'}
	texts={data.texts}
	languages={data.languages}
	onlanguage={(chosen) => void goto(`?in=${chosen}`)}
>
	<VisitPage
		visited={{ setting: data.setting, plan: data.plan, today: data.today, known: {} }}
		html={data.html}
		heading={data.heading}
		organisation={data.organisation.name}
		contact={data.contact}
		base=""
		door={null}
		begun={null}
		rehearsed
	/>
</VisitFrame>
