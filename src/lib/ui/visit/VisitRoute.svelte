<script lang="ts">
	import type { ComponentProps } from 'svelte';
	import VisitFrame from './VisitFrame.svelte';
	import Visitor from './Visitor.svelte';

	/** The page of an intake, at its own address or at that of a case that has begun. */
	let {
		data
	}: {
		data: Omit<ComponentProps<typeof VisitFrame>, 'base' | 'heading' | 'name' | 'logo' | 'colour' | 'children'> & {
			organisation: { name: string; logo: boolean; colour: string };
			view: ComponentProps<typeof Visitor>['view'];
			slug: string;
			token: string | null;
			key: string | null;
		};
	} = $props();
</script>

<VisitFrame
	base="/i/{data.slug}"
	heading={data.view.heading}
	name={data.organisation.name}
	logo={data.organisation.logo}
	colour={data.organisation.colour}
	language={data.language}
	direction={data.direction}
	texts={data.texts}
	languages={data.languages}
>
	<Visitor view={data.view} slug={data.slug} token={data.token} accessKey={data.key} />
</VisitFrame>
