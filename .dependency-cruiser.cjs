/** Imports point one way: routes → ui, server → press → core; words is texts and knows only core. */
const only = (room, rooms) => ({
	name: `${room} stays in its room`,
	severity: 'error',
	from: { path: `^src/lib/${room}/`, pathNot: '\\.test\\.ts$' },
	to: { path: '^src/', pathNot: `^src/lib/(${[room, ...rooms].join('|')})/` }
});

module.exports = {
	forbidden: [
		only('core', []),
		only('words', ['core']),
		only('press', ['core']),
		only('server', ['core', 'press', 'words']),
		only('ui', ['core', 'words']),
		{
			name: 'nothing imports routes',
			severity: 'error',
			from: { path: '^(src/lib|demo|bench|scripts)/' },
			to: { path: '^src/routes/' }
		},
		{
			name: 'core knows no platform',
			severity: 'error',
			from: { path: '^src/lib/core/', pathNot: '\\.test\\.ts$' },
			to: { dependencyTypes: ['core'] }
		},
		{
			name: 'core has few libraries',
			severity: 'error',
			from: { path: '^src/lib/core/', pathNot: '\\.test\\.ts$' },
			to: {
				path: 'node_modules',
				pathNot:
					'node_modules/(canonicalize|date-fns|@date-fns|@sinclair/typebox|jsep|decimal.js|re2js|ibantools|libphonenumber-js|validator|fastest-levenshtein|ical.js|mrz|pure-rand)/'
			}
		},
		{
			name: 'no circles',
			severity: 'error',
			from: {},
			to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } }
		}
	],
	options: {
		doNotFollow: { path: 'node_modules' },
		exclude: { path: '\\.svelte-kit|^build|^dist' },
		tsPreCompilationDeps: true,
		tsConfig: { fileName: 'tsconfig.json' },
		enhancedResolveOptions: {
			exportsFields: ['exports'],
			conditionNames: ['import', 'require', 'node', 'default', 'svelte']
		}
	}
};
