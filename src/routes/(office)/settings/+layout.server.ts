export const load = ({ locals }) => ({ owner: locals.account?.level === 'owner' });
