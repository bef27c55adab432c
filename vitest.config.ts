import { mergeConfig, defineConfig } from 'vitest/config'
import page from './vite.config.ts'

// The page's own plugins, so that components are tested as they are built.
export default mergeConfig(
  page,
  defineConfig({
    test: {
      include: ['{contract,core,server,web,demo,logger,scripts}/**/*.test.ts'],
      setupFiles: ['scripts/test-seed.ts'],
      testTimeout: 20_000,
      // One for each processor: the default leaves one idle, which on two is half.
      maxWorkers: '100%',
    },
  }),
)
