/** A notary's commission, as it is entered. */
export const COMMISSION = {
	name: 'Isolde Marchbank',
	email: 'marchbank@notary.example',
	number: 'NP 4471',
	jurisdiction: 'England and Wales',
	venue: 'Brindlevale',
	zone: 'Europe/London',
	from: '2025-01-01',
	until: '2027-06-30',
	hours: { days: [1, 2, 3, 4, 5], from: '09:00', to: '17:00' },
	fees: { 'sworn statement': '£40', 'certified copy': '£25' }
};
