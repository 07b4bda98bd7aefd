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
const room = (name, testEnvironment = 'node') => ({
  displayName: name,
  rootDir: `./${name}`,
  testEnvironment,
  transform: { '^.+\\.(t|j)sx?$': swc },
  transformIgnorePatterns: ['/node_modules/(?!(comlink|idb-keyval)/)'],
})

export default { projects: [room('core'), room('server'), room('web', 'jsdom')] }
