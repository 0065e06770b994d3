/* The rooms of src from the lowest up. A room imports from itself and from rooms below it; rooms on one line do not
   import each other. */
const floors = [
  ['habits'],
  ['api'],
  ['along'],
  ['time'],
  ['theme'],
  ['ui'],
  ['site'],
  ['hand'],
  ['drawing'],
  ['duties'],
  ['forms', 'disk'],
  ['findings', 'glance'],
  ['shell'],
  [
    'week',
    'kit',
    'weeks',
    'triggers',
    'storage',
    'rehearse',
    'compare',
    'handover',
    'measured',
    'history',
    'sites',
    'people',
    'company',
    'walk',
  ],
]

const upward = floors.flatMap((rooms, floor) =>
  rooms.map((room) => {
    const above = [...rooms.filter((r) => r !== room), ...floors.slice(floor + 1).flat()]
    return {
      name: `${room}-imports-downward`,
      severity: 'error',
      from: { path: `^src/${room}/` },
      to: { path: `^src/(${[...above, '[^/]+$'].join('|')})${above.length ? '(/|$)' : ''}` },
    }
  }),
)

module.exports = {
  forbidden: [
    { name: 'no-circle', severity: 'error', from: {}, to: { circular: true } },
    ...upward,
    {
      name: 'every-room-has-a-floor',
      comment: 'A new folder of src is named in the list of floors.',
      severity: 'error',
      from: { path: '^src/', pathNot: `^src/(${floors.flat().join('|')})/|^src/[^/]+$` },
      to: {},
    },
    { name: 'resolvable', severity: 'error', from: {}, to: { couldNotResolve: true, pathNot: '\\.css$|^[^.]' } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      extensions: ['.ts', '.vue', '.d.ts', '.json'],
      conditionNames: ['import', 'types', 'default'],
    },
  },
}
