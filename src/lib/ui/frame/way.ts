import { beforeNavigate, goto } from '$app/navigation';

/**
 * Takes the way to another page up again where loading this one anew has called it off: whoever presses a link
 * while what they typed is being kept gets there. (SvelteKit drops the navigation under way whenever a form's answer
 * or a notice loads the page's data anew.) Call once, in the root layout.
 */
export function holdTheWay(): void {
	let newest: unknown;
	beforeNavigate((way) => {
		newest = way;
		const target = way.to?.url;
		if (way.willUnload || target === undefined) return;
		way.complete.catch((fault: unknown) => {
			const calledOff = fault instanceof Error && fault.message === 'navigation aborted';
			if (!calledOff || newest !== way) return;
			newest = undefined;
			void goto(target, { replaceState: way.type === 'popstate', invalidateAll: true });
		});
	});
}
