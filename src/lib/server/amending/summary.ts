import { amendmentInWords } from '../../core/amend';
import type { Paper, Plan } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { changesSheetInWorker } from '../../press';
import type { House } from '../house';
import { checkLetters } from '../packets/marks';
import { addPaper } from '../papers';
import { organisation } from '../settings';

/** What the page of changes is called among the documents. */
const CHANGES = 'What is changed';

/** The page that everybody reads first, made of what the plan says it changes. Refuses a plan that changes nothing. */
export async function summaryPaper(house: House, plan: Plan): Promise<Paper | Refusal> {
	const { amends } = plan;
	if (!amends) return refuse('no-amendment', 'This changes nothing that was agreed.');
	const changes = amendmentInWords({ papers: plan.papers, amends });
	if (changes.length === 0)
		return refuse('nothing-amended', 'Nothing is changed yet. Strike words or exchange pages first.');
	const letters = changes.map((say) => checkLetters(say)).find(Boolean);
	if (letters) return letters;
	const bytes = await changesSheetInWorker({
		heading: `Amendment ${amends.number} to ${amends.reference}`,
		title: amends.title,
		organisation: organisation(house.db).name,
		changes,
		without: amends.without ?? '',
		papers: plan.papers.filter((paper) => paper.id !== amends.summary).map(({ name, digest }) => ({ name, digest }))
	});
	const taken = await addPaper(house, `${CHANGES}.pdf`, bytes);
	if (isRefusal(taken)) return taken;
	if ('attached' in taken) return refuse('pdf-signed', taken.why);
	return { id: amends.summary ?? 'changes', name: CHANGES, digest: taken.digest, pages: taken.pages };
}
