const swc = [
  '@swc/jest',
  {
    jsc: {
      parser: { syntax: 'typescript', tsx: true },
      transform: { react: { runtime: 'automatic' } },
      target: 'es2022',
    },
    module: { type: 'commonjs' },
  },
]
const room = (name, more = {}) => ({
  displayName: name,
  rootDir: `./${name}`,
  testEnvironment: 'node',
  transform: { '^.+\\.(t|j)sx?$': swc },
  moduleNameMapper: { '\\.css$': '<rootDir>/../web/test/style.ts' },
  transformIgnorePatterns: ['/node_modules/(?!(comlink|idb-keyval|react-hotkeys-hook)/)'],
  ...more,
})

export default {
  // A slow machine is no fault of the code: what hangs is still ended.
  testTimeout: 60_000,
  projects: [
    room('core'),
    room('server'),
    room('web', { testEnvironment: 'jsdom', setupFiles: ['<rootDir>/test/setup.ts'] }),
  ],
}
