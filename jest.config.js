/** One project a workspace; TypeScript is read from source, so tests need no build. */
const swc = (jsx) => [
  '@swc/jest',
  {
    jsc: {
      parser: { syntax: 'typescript', decorators: true, tsx: jsx },
      transform: {
        legacyDecorator: true,
        decoratorMetadata: true,
        useDefineForClassFields: false,
        react: { runtime: 'automatic' },
      },
      keepClassNames: true,
      target: 'es2022',
    },
    module: { type: 'es6' },
    sourceMaps: 'inline',
  },
];

const project = (name, more = {}) => ({
  displayName: name,
  rootDir: `./${name}`,
  testMatch: ['<rootDir>/src/**/*.test.ts', '<rootDir>/src/**/*.test.tsx'],
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  moduleNameMapper: { '^(\\.{1,2}/.*)\\.js$': '$1' },
  transform: { '\\.tsx?$': swc(name === 'web') },
  testEnvironment: 'node',
  testEnvironmentOptions: { customExportConditions: ['@jigsaw/source', 'node'] },
  ...more,
});

export default {
  // Nothing here is timed; this only ends what hangs, also on a busy machine.
  testTimeout: 300_000,
  // Workers keep more of each file that they ran; when most of their time goes into collecting garbage, a new one is quicker.
  workerIdleMemoryLimit: '1500MB',
  projects: [
    project('core'),
    project('contract'),
    project('server', {
      globalSetup: '<rootDir>/src/test/globalSetup.ts',
      globalTeardown: '<rootDir>/src/test/globalTeardown.ts',
    }),
    project('demo'),
    {
      displayName: 'ops',
      rootDir: './ops',
      testMatch: ['<rootDir>/*.test.mjs'],
      testEnvironment: 'node',
      transform: {},
    },
    project('web', {
      testEnvironment: '<rootDir>/src/test/browserEnvironment.ts',
      testEnvironmentOptions: {
        customExportConditions: ['@jigsaw/source', 'browser'],
        url: 'http://jigsaw.test/',
      },
      moduleNameMapper: {
        '^(\\.{1,2}/.*)\\.js$': '$1',
        '\\.(css|woff2|svg)(\\?url)?$': '<rootDir>/src/test/emptyAsset.ts',
        // It measures text in SVG, which there is none of here; browser tests see it drawn.
        '^apexcharts$': '<rootDir>/src/test/noChart.ts',
      },
      setupFilesAfterEnv: ['<rootDir>/src/test/setup.ts'],
    }),
  ],
};
