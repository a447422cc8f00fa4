import { amongValue, ANY, courseOf, stopValue, versionValue, type Course } from '../../core/pace';
import type { Plan } from '../../core/packet';
import { acts } from '../../core/route';
import type { House } from '../house';
import { waitsOf } from './curves';

/** How a template usually goes: each of its places from its turn until it was done, all of it, and version by version. */
export interface TemplateCourse {
	whole: Course;
	/** by the id of the person in the plan */
	places: Record<string, Course>;
	/** the newest first, those that have been sent */
	versions: { version: number; course: Course }[];
}

const MOST_VERSIONS = 6;

/** @param versions of the template, the newest first */
export function courseOfTemplate(
	house: House,
	template: string,
	plan: Plan | null,
	versions: readonly number[]
): TemplateCourse {
	const among = { ...ANY, template };
	const people = plan?.people.filter(({ duty }) => acts(duty)) ?? [];
	return {
		whole: courseOf(waitsOf(house, 'packet', 'among', amongValue(among))),
		places: Object.fromEntries(
			people.map((person) => [person.id, courseOf(waitsOf(house, 'part', 'stop', stopValue(person.id, among)))])
		),
		versions: versions
			.slice(0, MOST_VERSIONS)
			.map((version) => ({
				version,
				course: courseOf(waitsOf(house, 'packet', 'version', versionValue(template, version)))
			}))
			.filter(({ course }) => course.n > 0)
	};
}
