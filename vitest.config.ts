import { mergeConfig, defineConfig } from 'vitest/config'
import page from './vite.config.ts'

// Numbers in, numbers out: no test of these rooms leaves anything behind, so a worker reads each module once.
const pure = ['{contract,core}/**/*.test.ts']

// The page's own plugins, so that components are tested as they are built.
export default mergeConfig(
  page,
  defineConfig({
    test: {
      setupFiles: ['scripts/test-seed.ts'],
      // Bounds what hangs on a machine that is busy; it measures nothing.
      testTimeout: 60_000,
      // One for each processor: the default leaves one idle, which on two is half.
      maxWorkers: '100%',
      projects: [
        { extends: true, test: { name: 'core', include: pure, isolate: false } },
        // Each of its tests has a server and a data folder of its own.
        { extends: true, test: { name: 'server', include: ['server/**/*.test.ts'], isolate: false } },
        { extends: true, test: { name: 'house', include: ['{web,demo,logger,scripts}/**/*.test.ts'] } },
      ],
    },
  }),
)
