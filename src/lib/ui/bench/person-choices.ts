import type { PlanPerson } from '../../core/packet';

/** People who can be given a field, to choose from. @param except one who is left out */
export function personChoices(actors: PlanPerson[], except?: string | null): [id: string, name: string][] {
	return actors.filter((p) => p.id !== except).map((p) => [p.id, p.name || p.role || 'No name yet']);
}
